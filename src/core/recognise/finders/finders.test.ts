import { wordsOf } from '../reading.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { listValue, utterances } from '../../../../tests/rows.js';
import { emptyBot, ENTITY_KINDS, type Entity, type EntityKind } from '../../bot/document.js';
import { tokenise } from '../../text/tokens.js';
import { prepareFinders, settleOverlaps } from './index.js';
import type { Candidate } from './finder.js';

/** A Wednesday. */
const NOW = '2026-03-04T09:30';

function finderFor(entities: Entity[], region = 'GB', sources: string[] = []) {
  const document = {
    ...emptyBot('test'),
    region,
    entities,
    intents: [{ name: 'i', utterances: utterances(...sources) }],
  };
  const find = prepareFinders(document, new Set(wordsOf(document)));
  return (text: string) =>
    find(tokenise(text), NOW).map((found) => ({ ...found, text: text.slice(found.start, found.end) }));
}

const ofKind = (kind: EntityKind, region?: string) => finderFor([{ name: 'it', kind }], region);
const pairs = (found: { text: string; value: unknown }[]) => found.map(({ text, value }) => [text, value]);

describe('numbers', () => {
  const find = ofKind('number');

  it.each<[string, [string, number][]]>([
    ['I want 3 of them', [['3', 3]]],
    ['1,500 flyers', [['1,500', 1500]]],
    ['2.5 metres', [['2.5', 2.5]]],
    ['two hundred and fifty please', [['two hundred and fifty', 250]]],
    ['a hundred or so', [['a hundred', 100]]],
    ['one thousand two hundred', [['one thousand two hundred', 1200]]],
    ['three thousand and six', [['three thousand and six', 3006]]],
    ['seventy-five when done', [['seventy-five', 75]]],
    ['half a dozen roses', [['half a dozen', 6]]],
    [
      'two dozen and a couple of ferns',
      [
        ['two dozen', 24],
        ['a couple of', 2],
      ],
    ],
    ['3 dozen', [['3 dozen', 36]]],
    ['2 hundred', [['2 hundred', 200]]],
    ['3x roses', [['3', 3]]],
    [
      'four or five',
      [
        ['four', 4],
        ['five', 5],
      ],
    ],
    [
      'ten foxgloves and ten irises',
      [
        ['ten', 10],
        ['ten', 10],
      ],
    ],
    ['twenty one', [['twenty one', 21]]],
    ['I like this one and that one', []],
    ['order LM-20418 on A5, 500gsm, the 16th', []],
    ['a rose and an iris', []],
    ['and hundred', []],
  ])('%s', (text, wanted) => {
    expect(pairs(find(text))).toEqual(wanted);
  });
});

describe('ordinals', () => {
  it.each<[string, [string, number][]]>([
    ['the third one', [['third', 3]]],
    [
      'my 2nd order and the 21st',
      [
        ['2nd', 2],
        ['21st', 21],
      ],
    ],
    ['no order here', []],
  ])('%s', (text, wanted) => {
    expect(pairs(ofKind('ordinal')(text))).toEqual(wanted);
  });
});

describe('dates, from a Wednesday 4 March', () => {
  const find = ofKind('date');

  it.each<[string, string, string]>([
    ['on Friday please', 'Friday', '2026-03-06'],
    ['for Friday, please', 'Friday', '2026-03-06'],
    ['this Saturday', 'this Saturday', '2026-03-07'],
    ['next Tuesday', 'next Tuesday', '2026-03-10'],
    ['by weds', 'weds', '2026-03-11'],
    ['tomorrow at ten', 'tomorrow', '2026-03-05'],
    ['tomorow', 'tomorow', '2026-03-05'],
    ['are you open on sundy', 'sundy', '2026-03-08'],
    ['the day after tomorrow', 'the day after tomorrow', '2026-03-06'],
    ['a week tomorow', 'a week tomorow', '2026-03-12'],
    ['a week on Thursday', 'a week on Thursday', '2026-03-12'],
    ['Friday week', 'Friday week', '2026-03-13'],
    ['a fortnight today', 'a fortnight today', '2026-03-18'],
    ['in two weeks', 'in two weeks', '2026-03-18'],
    ['in 10 days time', 'in 10 days time', '2026-03-14'],
    ['the 18th of March', 'the 18th of March', '2026-03-18'],
    ['20 March 2026', '20 March 2026', '2026-03-20'],
    ['13 March', '13 March', '2026-03-13'],
    ['Monday the 16th', 'Monday the 16th', '2026-03-16'],
    ['by the 3rd', 'the 3rd', '2026-04-03'],
    ['on the 21st', 'the 21st', '2026-03-21'],
    ['19/09', '19/09', '2026-09-19'],
    ['the end of next month', 'the end of next month', '2026-04-30'],
    ['this weekend', 'this weekend', '2026-03-07/2026-03-08'],
    ['on Wednesday evening', 'Wednesday', '2026-03-11'],
  ])('%s', (text, words, value) => {
    expect(pairs(find(text))).toEqual([[words, value]]);
  });

  it.each([
    'wait a second',
    'at the last minute',
    'do you do a half day',
    'I may come',
    'the week was long',
    'march on',
  ])('takes %s for no day', (text) => {
    expect(find(text)).toEqual([]);
  });

  it('puts the month first where the region does', () => {
    expect(pairs(ofKind('date', 'US')('on 3/4/2026'))).toEqual([['3/4/2026', '2026-03-04']]);
    expect(pairs(ofKind('date', 'GB')('on 3/4/2026'))).toEqual([['3/4/2026', '2026-04-03']]);
  });
});

describe('times', () => {
  it.each<[string, string, string]>([
    ['at half ten', 'half ten', '10:30'],
    ['half past three', 'half past three', '15:30'],
    ['quarter to nine in the morning', 'quarter to nine in the morning', '08:45'],
    ['at 10am', '10am', '10:00'],
    ['around 3 pm', '3 pm', '15:00'],
    ['15:30 would do', '15:30', '15:30'],
    ['ten past two', 'ten past two', '14:10'],
    ['noon', 'noon', '12:00'],
    ["eleven o'clock", "eleven o'clock", '11:00'],
    ['at four then', 'four', '16:00'],
  ])('%s', (text, words, value) => {
    expect(pairs(ofKind('time')(text))).toEqual([[words, value]]);
  });

  it('joins a day and a time that stand together', () => {
    expect(pairs(ofKind('datetime')('tomorrow at half ten'))).toEqual([['tomorrow at half ten', '2026-03-05T10:30']]);
  });
});

describe('list values', () => {
  const plants: Entity = {
    name: 'plant',
    kind: 'list',
    misspellings: true,
    values: [
      listValue('lavender', 'lavandula'),
      listValue('olive tree', 'olive'),
      listValue('strawberry'),
      listValue('rose', 'climbing rose'),
      listValue('sage', 'purple sage'),
    ],
  };
  const find = finderFor([plants], 'GB', ['the marsh walk is lovely']);

  it.each<[string, [string, string][]]>([
    ['two lavenders', [['lavenders', 'lavender']]],
    ['LAVANDULA', [['LAVANDULA', 'lavender']]],
    ['some strawberries', [['strawberries', 'strawberry']]],
    ['five lavendar', [['lavendar', 'lavender']]],
    ['starwberry', [['starwberry', 'strawberry']]],
    [
      'an olive tree and an olive',
      [
        ['olive tree', 'olive tree'],
        ['olive', 'olive tree'],
      ],
    ],
    ['a climbing rose', [['climbing rose', 'rose']]],
    ['the rose climbing up', [['rose climbing', 'rose']]],
    ['sage, purple', [['sage, purple', 'sage']]],
    ['I was late and save my page', []],
    ['it is lovely', []],
  ])('%s', (text, wanted) => {
    expect(pairs(find(text))).toEqual(wanted);
  });

  it('finds no misspellings where the list does not allow them', () => {
    expect(finderFor([{ ...plants, misspellings: false }])('lavendar')).toEqual([]);
  });

  it('reports a word that two values share', () => {
    const shared = finderFor([
      {
        name: 'size',
        kind: 'list',
        values: [listValue('A5', 'half page'), listValue('DL', 'half page')],
      },
    ]);
    expect(shared('a half page')).toMatchObject([{ value: 'A5', alternatives: ['DL'] }]);
  });

  it('finds codes with digits only where they are glued as listed', () => {
    const sizes = finderFor([
      {
        name: 'size',
        kind: 'list',
        values: [listValue('A5'), listValue('6x4')],
      },
    ]);
    expect(pairs(sizes('500 A5 flyers, a 5 litre pot, 6 x 4'))).toEqual([
      ['A5', 'A5'],
      ['6 x 4', '6x4'],
    ]);
  });
});

describe('patterns', () => {
  const find = finderFor([{ name: 'order', kind: 'pattern', pattern: 'LM-\\d{5}' }]);

  it('finds codes in capitals or not and gives them as the pattern has them', () => {
    expect(pairs(find('is lm-20418 or LM-20419 ready'))).toEqual([
      ['lm-20418', 'LM-20418'],
      ['LM-20419', 'LM-20419'],
    ]);
  });

  it('finds no code inside a longer one', () => {
    expect(find('LM-204185 XLM-20418')).toEqual([]);
  });
});

describe('ways to reach somebody', () => {
  it.each<[EntityKind, string, string, string]>([
    ['email', 'write to Wren.Allard@example.org, please.', 'Wren.Allard@example.org', 'wren.allard@example.org'],
    ['phone', 'ring me on 07700 900123.', '07700 900123', '+447700900123'],
    ['phone', 'or (01632) 960 123', '(01632) 960 123', '+441632960123'],
    ['phone', 'abroad it is +33 1 23 45 67 89', '+33 1 23 45 67 89', '+33123456789'],
    ['url', 'see https://example.org/a?b=1.', 'https://example.org/a?b=1', 'https://example.org/a?b=1'],
    ['address', 'deliver to 7 Osier Court, Hexby please', '7 Osier Court, Hexby', '7 Osier Court, Hexby'],
  ])('%s: %s', (kind, text, words, value) => {
    expect(pairs(ofKind(kind)(text.replace('(', ' ('.trim())))).toEqual([[words, value]]);
  });

  it('takes no date or order number for a telephone', () => {
    expect(ofKind('phone')('on 2026-03-05, order J557204')).toEqual([]);
  });
});

describe('overlaps', () => {
  const at = (start: number, end: number, entity: string): Candidate => ({
    entity,
    kind: 'list',
    start,
    end,
    value: entity,
    match: 'exact',
  });

  it('go to the longer stretch; of equal ones the earlier finder keeps it', () => {
    expect(settleOverlaps([at(0, 5, 'short'), at(0, 9, 'long'), at(7, 12, 'late')]).map((item) => item.entity)).toEqual(
      ['long'],
    );
  });

  it('leave entities beside each other that find the very same words', () => {
    expect(settleOverlaps([at(0, 5, 'a'), at(0, 5, 'b')])).toHaveLength(2);
  });
});

describe('odd input', () => {
  const kinds = ENTITY_KINDS.filter((kind) => kind !== 'list' && kind !== 'pattern' && kind !== 'free');
  const find = finderFor([
    ...kinds.map((kind): Entity => ({ name: `any_${kind}`, kind })),
    { name: 'plant', kind: 'list', misspellings: true, values: [listValue('rose', 'climbing rose')] },
    { name: 'order', kind: 'pattern', pattern: 'LM-\\d{5}' },
  ]);
  const pieces = fc.constantFrom(
    'rose',
    'LM-12345',
    '12',
    'th',
    ' next ',
    'friday',
    ' at ',
    'half',
    '@',
    '.',
    '+44',
    '😀',
    '\uD800',
    '\u202E',
    '\u0000',
    '<b>',
    '\n',
    'first',
    ' of ',
    ' pounds ',
    'double ',
    ' oh ',
    ' dot ',
    ' per cent',
    'between ',
    ' and ',
    ' the ',
    'Mill Road, ',
    'Mrs ',
    '1,000',
    ':',
    '-',
  );

  it('never makes a finder throw, and offsets lie within the text', () => {
    const check = (text: string) => {
      for (const found of find(text)) {
        expect(found.start).toBeGreaterThanOrEqual(0);
        expect(found.end).toBeGreaterThan(found.start);
        expect(found.end).toBeLessThanOrEqual(text.length);
      }
    };
    fc.assert(fc.property(fc.string({ unit: 'binary', maxLength: 60 }), check));
    fc.assert(
      fc.property(
        fc.array(pieces, { maxLength: 14 }).map((list) => list.join('')),
        check,
      ),
    );
    for (const text of ['', '9'.repeat(1000), 'rose '.repeat(2000), '@'.repeat(500), '1 '.repeat(1000)]) check(text);
  });
});
