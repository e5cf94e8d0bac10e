import { describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import { taughtMessages } from './evaluate.js';
import { flagLines, readPastedTests, rewrittenLine, setAside, withValue, writtenLine } from './testLines.js';

describe('test lines', () => {
  it('are flagged where they prove nothing or say two things', () => {
    const taught = taughtMessages(teaShop());
    const [own] = teaShop().intents[1]!.utterances;
    const lines = [
      { text: 'is the kettle on', intent: 'opening_hours' },
      { text: `${own!.text.toUpperCase()} !`, intent: 'opening_hours' },
      { text: 'Is the kettle on?', intent: 'opening_hours' },
      { text: 'two of those', intent: 'order_tea' },
      { text: 'Two of those!', intent: null },
      { text: 'no idea' },
      { text: 'Two of those' },
    ];
    expect(flagLines(lines, taught)).toEqual([
      null,
      'taught',
      'twice',
      'disagrees',
      'disagrees',
      'no label',
      'disagrees',
    ]);
  });

  it('are read as they come from a table, with their label', () => {
    const { good, bad } = readPastedTests(
      'when do you shut\tOPENING_HOURS\n\nring me\t-\nwhat now?\n\torder_tea\nhello\tgreting',
      ['opening_hours', 'order_tea'],
    );
    expect(good).toEqual([
      { text: 'when do you shut', intent: 'opening_hours' },
      { text: 'ring me', intent: null },
      { text: 'what now?' },
    ]);
    expect(bad).toEqual([
      { line: '\torder_tea', reason: 'the message is missing' },
      { line: 'hello\tgreting', reason: 'there is no intent "greting"' },
    ]);
  });

  it('are read from a list, with the slots that are marked in them', () => {
    const { good, bad } = readPastedTests('- <amount>two</amount> please\n- 3 < 4', []);
    expect(bad).toEqual([]);
    expect(good).toEqual([{ text: 'two please', slots: [{ slot: 'amount', start: 0, end: 3 }] }, { text: '3 < 4' }]);
  });
});

describe('utterances set aside', () => {
  it('are a share of each intent, the same by a seed, and leave every intent some', () => {
    const shop = teaShop();
    const aside = setAside(shop, 0.25, 7);
    expect(setAside(shop, 0.25, 7)).toEqual(aside);
    expect(setAside(shop, 0.25, 8)).not.toEqual(aside);
    for (const { name, utterances } of shop.intents) {
      const own = aside.lines.filter(({ intent }) => intent === name);
      expect(own.length).toBe(Math.min(Math.round(utterances.length / 4), Math.max(0, utterances.length - 4)));
      for (const { text } of own) expect(utterances.map((utterance) => utterance.text)).toContain(text);
    }
    expect(aside.rows.length).toBe(aside.lines.length);
    const most = setAside(shop, 1, 1);
    for (const { name, utterances } of shop.intents) {
      expect(utterances.length - most.lines.filter(({ intent }) => intent === name).length).toBe(
        Math.min(4, utterances.length),
      );
    }
  });
});

describe('a line that is written anew', () => {
  const line = { text: 'two big roses', slots: [{ slot: 'size', start: 4, end: 7, value: 'large' }] };

  it('has its slots in tags, and those of the same words keep their value', () => {
    expect(writtenLine(line)).toBe('two <size>big</size> roses');
    expect(rewrittenLine(line, ' <amount>three</amount> <size>big</size> ones ')).toEqual({
      text: 'three big ones',
      slots: [
        { slot: 'amount', start: 0, end: 5 },
        { slot: 'size', start: 6, end: 9, value: 'large' },
      ],
    });
    expect(rewrittenLine(line, 'two <size>small</size> roses').slots).toEqual([{ slot: 'size', start: 4, end: 9 }]);
    const counted = { text: 'two', slots: [{ slot: 'amount', start: 0, end: 3, value: 2 }] };
    expect(rewrittenLine(counted, '<amount>two</amount> please').slots?.[0]?.value).toBe('2');
  });

  it('goes on to list its slots, or not to', () => {
    expect(rewrittenLine(line, 'roses')).toEqual({ text: 'roses', slots: [] });
    expect(rewrittenLine({ text: 'a' }, 'b')).toEqual({ text: 'b' });
    expect(() => rewrittenLine(line, '<size>big')).toThrow(/not closed/);
  });

  it('is told the value of one slot', () => {
    const told = withValue([...line.slots, { slot: 'plant', start: 8, end: 13 }], { place: 1, value: 'rose' });
    expect(told.map(({ value }) => value)).toEqual(['large', 'rose']);
    expect(withValue(told, { place: 0, value: null })[0]).toEqual({ slot: 'size', start: 4, end: 7 });
  });
});
