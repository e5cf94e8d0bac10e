import { describe, expect, it } from 'vitest';
import { UTTERANCES_PAGE, type IntentSheet, type UtteranceLine } from '$core/contract/teach.js';
import { Pages } from '../shared/pages.svelte.js';
import { SheetRows } from './rows.svelte.js';

const line = (id: string, text = id): UtteranceLine => ({ id, source: text, text, marks: [], heldOut: null });

/** An intent of so many utterances, of which the first page is sent. */
function sheetOf(count: number, name = 'order', text = (id: string) => id): IntentSheet {
  const ids = Array.from({ length: count }, (_, at) => `u${at}`);
  const page = ids.slice(0, UTTERANCES_PAGE).map((id) => line(id, text(id)));
  return { name, count, ids: ids.join(' '), page } as IntentSheet;
}

describe('the rows of a long sheet', () => {
  const asked: string[] = [];
  const all = sheetOf(1000);
  const rowsOver = (text = (id: string) => id) => {
    asked.length = 0;
    return new SheetRows((intent, from) => {
      asked.push(`${intent} ${from}`);
      return Promise.resolve(
        all.ids
          .split(' ')
          .slice(from, from + UTTERANCES_PAGE)
          .map((id) => line(id, text(id))),
      );
    });
  };

  it('are all named, and hold the lines that were shown', async () => {
    const sheet = rowsOver();
    sheet.take(all);
    expect(sheet.rows).toHaveLength(1000);
    expect(sheet.rows[0]!.line?.text).toBe('u0');
    expect(sheet.rows[500]!.line).toBeUndefined();
    await Promise.all([sheet.show(['u500', 'u501']), sheet.show(['u502'])]);
    expect(asked).toEqual(['order 400']);
    expect(sheet.rows[500]!.line?.text).toBe('u500');
    await sheet.show(['u0', 'u599']);
    expect(asked).toHaveLength(1);
  });

  it('show what was until it is loaded anew, and bring lines that an act needs', async () => {
    const sheet = rowsOver((id) => `${id} as it stands`);
    sheet.take(all);
    await sheet.show(['u500']);
    sheet.take(sheetOf(1000));
    expect(sheet.rows[500]!.line?.text).toBe('u500 as it stands');
    expect((await sheet.lines(['u500', 'u700', 'gone'])).map(({ text }) => text)).toEqual([
      'u500 as it stands',
      'u700 as it stands',
    ]);
    expect(asked).toEqual(['order 400', 'order 400', 'order 600']);
  });

  it('are asked for again where a page could not be loaded', async () => {
    let fails = true;
    const sheet = new SheetRows(() => (fails ? Promise.reject(new Error('gone')) : Promise.resolve([line('u500')])));
    const pages = new Pages<string>(10, () => (fails ? Promise.reject(new Error('gone')) : Promise.resolve(['a'])));
    sheet.take(all);
    pages.take({ from: 0, rows: [] }, 50);
    await expect(sheet.show(['u500'])).rejects.toThrow('gone');
    await expect(pages.show(20, 20)).rejects.toThrow('gone');
    fails = false;
    await sheet.show(['u500']);
    await pages.show(20, 20);
    expect([sheet.rows[500]!.line?.text, pages.row(20)]).toEqual(['u500', 'a']);
  });

  it('of another intent hold nothing of the one before', () => {
    const sheet = rowsOver();
    sheet.take(all);
    sheet.take({ ...sheetOf(3, 'cancel', (id) => `cancel ${id}`), page: [] });
    expect(sheet.rows.map((row) => row.line)).toEqual([undefined, undefined, undefined]);
  });
});

describe('pages of rows', () => {
  it('are loaded where they are shown, once, and anew after the screen was', async () => {
    const from: number[] = [];
    const pages = new Pages<number>(10, (start) => {
      from.push(start);
      return Promise.resolve(Array.from({ length: 10 }, (_, at) => start + at));
    });
    pages.take({ from: 0, rows: [0, 1, 2, 3, 4, 5, 6, 7, 8, 9] }, 95);
    await pages.show(5, 24);
    expect(from).toEqual([10, 20]);
    expect([pages.row(3), pages.row(17), pages.row(40)]).toEqual([3, 17, undefined]);
    await pages.show(90, 200);
    expect(from).toEqual([10, 20, 90]);
    pages.take({ from: 10, rows: [0] }, 95);
    expect(pages.row(24)).toBe(24);
    await pages.show(10, 24);
    expect(from).toEqual([10, 20, 90, 20]);
  });
});
