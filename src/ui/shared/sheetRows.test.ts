import { describe, expect, it } from 'vitest';
import { OptimisticRows } from './optimistic.svelte.js';
import { SheetRows, type SheetPart } from './sheetRows.svelte.js';

interface Line {
  id: string;
  text: string;
}

const SIZE = 200;
const line = (id: string, text = id): Line => ({ id, text });

/** A sheet of so many rows, of which the first page is sent. */
function sheetOf(count: number, name = 'order', text = (id: string) => id): SheetPart<Line> {
  const ids = Array.from({ length: count }, (_, at) => `u${at}`);
  return { name, ids: ids.join(' '), page: ids.slice(0, SIZE).map((id) => line(id, text(id))) };
}

describe('the rows of a long sheet', () => {
  const asked: string[] = [];
  const all = sheetOf(1000);
  const rowsOver = (text = (id: string) => id) => {
    asked.length = 0;
    return new SheetRows<Line>(SIZE, (name, from) => {
      asked.push(`${name} ${from}`);
      const ids = all.ids.split(' ').slice(from, from + SIZE);
      return Promise.resolve(ids.map((id) => line(id, text(id))));
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
    const load = () => (fails ? Promise.reject(new Error('gone')) : Promise.resolve([line('u500')]));
    const sheet = new SheetRows<Line>(SIZE, load);
    sheet.take(all);
    await expect(sheet.show(['u500'])).rejects.toThrow('gone');
    fails = false;
    await sheet.show(['u500']);
    expect(sheet.rows[500]!.line?.text).toBe('u500');
  });

  it('of another name hold nothing of the one before', () => {
    const sheet = rowsOver();
    sheet.take(all);
    sheet.take({ ...sheetOf(3, 'cancel', (id) => `cancel ${id}`), page: [] });
    expect(sheet.rows.map((row) => row.line)).toEqual([undefined, undefined, undefined]);
    sheet.take({ name: 'cancel', ids: '', page: [] });
    expect(sheet.rows).toEqual([]);
  });
});

describe('acts that are on their way', () => {
  const rows = [line('a'), line('b')];
  const shown = (overlay: OptimisticRows<Line>) => overlay.apply(rows).map(({ text }) => text);

  it('are shown until they are answered, whatever the answer', async () => {
    const overlay = new OptimisticRows<Line>();
    const answers: { resolve: (done: boolean) => void; reject: (error: Error) => void }[] = [];
    const asked = () => new Promise<boolean>((resolve, reject) => answers.push({ resolve, reject }));
    const adding = overlay.adding([line('c')], asked);
    const changing = overlay.changing('a', ({ id }) => line(id, 'A'), asked);
    const removing = overlay.removing(new Set(['b']), asked);
    expect(shown(overlay)).toEqual(['A', 'c']);
    answers[1]!.resolve(false);
    expect(await changing).toBe(false);
    expect(shown(overlay)).toEqual(['a', 'c']);
    answers[2]!.reject(new Error('refused'));
    await expect(removing).rejects.toThrow('refused');
    expect(shown(overlay)).toEqual(['a', 'b', 'c']);
    answers[0]!.resolve(true);
    await adding;
    expect(shown(overlay)).toEqual(['a', 'b']);
  });

  it('show a row once where the server has it before it answers', () => {
    const overlay = new OptimisticRows<Line>();
    void overlay.adding([line('b', 'added')], () => new Promise(() => undefined));
    expect(shown(overlay)).toEqual(['a', 'added']);
  });
});
