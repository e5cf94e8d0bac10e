import { describe, expect, it } from 'vitest';
import { emptyBot, type Entity, type EntityKind } from '../../bot/document.js';
import { tokenise } from '../../text/tokens.js';
import type { Value } from '../value.js';
import { prepareFinders } from './index.js';

const NOW = '2026-03-04T09:30';

function finder(entity: Partial<Entity> & { kind: EntityKind }, region = 'GB') {
  const find = prepareFinders({ ...emptyBot('test'), region, entities: [{ name: 'it', ...entity }] }, new Set());
  return (text: string) => find(tokenise(text), NOW).map(({ start, end, value }) => [text.slice(start, end), value]);
}

const pounds = (amount: number): Value => ({ amount, currency: 'GBP' });

describe.each<[kind: EntityKind, cases: [text: string, words: string, value: Value][], none: string[]]>([
  [
    'number',
    [
      ['a hundred and twenty', 'a hundred and twenty', 120],
      ['1,500 leaflets', '1,500', 1500],
      ['thirty-two', 'thirty-two', 32],
      ['a thousand', 'a thousand', 1000],
      ['fifteen hundred', 'fifteen hundred', 1500],
      ['three dozen eggs', 'three dozen', 36],
      ['about 40', '40', 40],
      ['half a dozen of those', 'half a dozen', 6],
      ['a couple of trays', 'a couple of', 2],
      ['x3', '3', 3],
      ['ten thousand', 'ten thousand', 10000],
      ['two and a quarter', 'two and a quarter', 2.25],
      ['nought', 'nought', 0],
      ['5k', '5k', 5000],
      ['1.5', '1.5', 1.5],
      ['three hundred-and-five', 'three hundred-and-five', 305],
      ['one and a half please', 'one and a half', 1.5],
      ['two hundred and fifty', 'two hundred and fifty', 250],
      ['about 3k of them', '3k', 3000],
      ['2.5 million', '2.5 million', 2500000],
      ['hundred flyers', 'hundred', 100],
      ['twelve hundred labels', 'twelve hundred', 1200],
      ['a pair of boots', 'a pair of', 2],
    ],
    ['call 020 7946 0018', 'the blue one', 'the twenty-first', 'no one came', 'constructor'],
  ],
  [
    'ordinal',
    [
      ['5th', '5th', 5],
      ['twenty second', 'twenty second', 22],
      ['my twenty-first order', 'twenty-first', 21],
      ['the 2nd', '2nd', 2],
    ],
    ['an old hand', 'the last one'],
  ],
  [
    'money',
    [
      ['around £20', '£20', pounds(20)],
      ['twenty pounds', 'twenty pounds', pounds(20)],
      ['£3,450.99', '£3,450.99', pounds(3450.99)],
      ['a fiver', 'a fiver', pounds(5)],
      ['ten pound fifty', 'ten pound fifty', pounds(10.5)],
      ['99p', '99p', pounds(0.99)],
      ['fifty quid', 'fifty quid', pounds(50)],
      ['three grand', 'three grand', pounds(3000)],
      ['50 dollars', '50 dollars', { amount: 50, currency: 'USD' }],
      ['€15', '€15', { amount: 15, currency: 'EUR' }],
      ['15€', '15€', { amount: 15, currency: 'EUR' }],
      ['a hundred pounds', 'a hundred pounds', pounds(100)],
      ['£10 a month', '£10', pounds(10)],
      ['GBP 40', 'GBP 40', pounds(40)],
      ['it was £4.50', '£4.50', pounds(4.5)],
      ['50p off', '50p', pounds(0.5)],
      ['forty quid', 'forty quid', pounds(40)],
      ['two pounds fifty', 'two pounds fifty', pounds(2.5)],
      ['it cost two fifty', 'two fifty', pounds(2.5)],
      ['a tenner', 'a tenner', pounds(10)],
      ['$1,200', '$1,200', { amount: 1200, currency: 'USD' }],
      ['20 euros', '20 euros', { amount: 20, currency: 'EUR' }],
      ['seventy five pence', 'seventy five pence', pounds(0.75)],
      ['£1.5k', '£1.5k', pounds(1500)],
    ],
    ['two fifty litre pots', 'some apples', '5 of them'],
  ],
  [
    'percent',
    [
      ['20 percent off', '20 percent', 20],
      ['half a percent', 'half a percent', 0.5],
      ['five %', 'five %', 5],
      ['fifteen per cent discount', 'fifteen per cent', 15],
      ['12.5% off', '12.5%', 12.5],
      ['ten per cent', 'ten per cent', 10],
      ['twelve and a half percent', 'twelve and a half percent', 12.5],
    ],
    ['ten of them'],
  ],
  [
    'duration',
    [
      ['for 45 minutes', '45 minutes', 'PT45M'],
      ['two and a half days', 'two and a half days', 'P2DT12H'],
      ['a week', 'a week', 'P1W'],
      ['90 mins', '90 mins', 'PT90M'],
      ['three weeks', 'three weeks', 'P3W'],
      ['2 hrs', '2 hrs', 'PT2H'],
      ['ten years', 'ten years', 'P10Y'],
      ['a quarter of an hour', 'a quarter of an hour', 'PT15M'],
      ['for two hours', 'two hours', 'PT2H'],
      ['half an hour', 'half an hour', 'PT30M'],
      ['an hour and a half', 'an hour and a half', 'PT1H30M'],
      ['two and a half hours', 'two and a half hours', 'PT2H30M'],
      ['1 hour 20 minutes', '1 hour 20 minutes', 'PT1H20M'],
      ['three quarters of an hour', 'three quarters of an hour', 'PT45M'],
      ['a fortnight', 'a fortnight', 'P2W'],
      ['six months', 'six months', 'P6M'],
      ['a year and a half', 'a year and a half', 'P1Y6M'],
      ['a couple of days', 'a couple of days', 'P2D'],
      ['1h30', '1h', 'PT1H'],
    ],
    ['two weeks ago', 'the hour has come'],
  ],
  [
    'quantity',
    [
      ['3 litres', '3 litres', '3 l'],
      ['two metres', 'two metres', '2 m'],
      ['10 cm', '10 cm', '10 cm'],
      ['half a kilo', 'half a kilo', '0.5 kg'],
      ['250 grams', '250 grams', '250 g'],
      ['5ft', '5ft', '5 ft'],
      ['three pints', 'three pints', '3 pt'],
      ['a tonne', 'a tonne', '1 t'],
      ['2.5kg of sand', '2.5kg', '2.5 kg'],
      ['two and a half kilos', 'two and a half kilos', '2.5 kg'],
      ['half a litre', 'half a litre', '0.5 l'],
      ['ten square metres', 'ten square metres', '10 m²'],
      ['500gsm', '500gsm', '500 gsm'],
      ['six foot', 'six foot', '6 ft'],
      ['a pint', 'a pint', '1 pt'],
    ],
    ['2 in the box', '5 of them'],
  ],
  [
    'country',
    [
      ['to France', 'France', 'France'],
      ['do you ship to the Netherlands', 'the Netherlands', 'Netherlands'],
      ['from New Zealand', 'New Zealand', 'New Zealand'],
      ['we are in Wales', 'Wales', 'United Kingdom'],
      ['south korea', 'south korea', 'South Korea'],
      ['ireland', 'ireland', 'Ireland'],
      ['USA', 'USA', 'United States of America'],
      ['post it to germany', 'germany', 'Germany'],
      ['the United States of America', 'United States of America', 'United States of America'],
      ['from the UK', 'UK', 'United Kingdom'],
      ['I live in Scotland', 'Scotland', 'United Kingdom'],
      ['off to Turkey', 'Turkey', 'Türkiye'],
      ['Holland', 'Holland', 'Netherlands'],
    ],
    ['we had turkey for dinner', 'can you help us'],
  ],
  [
    'email',
    [
      ['write to JO.Black+shop@Example.co.uk please', 'JO.Black+shop@Example.co.uk', 'jo.black+shop@example.co.uk'],
      ['tess dot moor at example dot co dot uk', 'tess dot moor at example dot co dot uk', 'tess.moor@example.co.uk'],
      ["it's info@oak-lane.example.", 'info@oak-lane.example', 'info@oak-lane.example'],
      ['rosa at millbeck hall dot org dot uk', 'rosa at millbeck hall dot org dot uk', 'rosa@millbeckhall.org.uk'],
      ['my email is jo dot smith at example dot com', 'jo dot smith at example dot com', 'jo.smith@example.com'],
      ['it is jam@thornbarrow.example', 'jam@thornbarrow.example', 'jam@thornbarrow.example'],
      ['pip underscore 4 at example dot org', 'pip underscore 4 at example dot org', 'pip_4@example.org'],
    ],
    ['meet me at the shop', 'at two point five'],
  ],
  [
    'phone',
    [
      ['on 01632 960555', '01632 960555', '+441632960555'],
      [
        'oh one six three two nine six oh one double two',
        'oh one six three two nine six oh one double two',
        '+441632960122',
      ],
      ['0044 7700 900123', '0044 7700 900123', '+447700900123'],
      ['(01632) 960 777', '(01632) 960 777', '+441632960777'],
      ['+33 1 70 18 99 00', '+33 1 70 18 99 00', '+33170189900'],
      ['07700900456', '07700900456', '+447700900456'],
      [
        'oh seven seven double oh nine double oh five one three',
        'oh seven seven double oh nine double oh five one three',
        '+447700900513',
      ],
      ['ring 07700 900861', '07700 900861', '+447700900861'],
      ['+44 1632 960 288', '+44 1632 960 288', '+441632960288'],
    ],
    ['I want one two or three'],
  ],
  [
    'url',
    [
      ['see https://example.org/x?y=1.', 'https://example.org/x?y=1', 'https://example.org/x?y=1'],
      ['on example.com/shop', 'example.com/shop', 'example.com/shop'],
      ['look at www.example.org/a', 'www.example.org/a', 'www.example.org/a'],
      ['on marsh-nursery.co.uk', 'marsh-nursery.co.uk', 'marsh-nursery.co.uk'],
    ],
    ['jo@example.com', 'end of it.Come on'],
  ],
  [
    'person',
    [
      ['ask for Dr Patel', 'Dr Patel', 'Dr Patel'],
      ["I'm Tobias Wren", 'Tobias Wren', 'Tobias Wren'],
      ['speaking to Marguerite earlier', 'Marguerite', 'Marguerite'],
      ['my name is anna', 'anna', 'anna'],
      ["it's under Fenwick", 'Fenwick', 'Fenwick'],
      ['put me through to Jonas', 'Jonas', 'Jonas'],
      ['my name is Bertram Oake', 'Bertram Oake', 'Bertram Oake'],
      ['can i speak to gwenda please', 'gwenda', 'gwenda'],
      ['I saw Mrs Lowther', 'Mrs Lowther', 'Mrs Lowther'],
      ['Is Wilf about?', 'Wilf', 'Wilf'],
      ['this is Odile from the school', 'Odile', 'Odile'],
      ["she's called Odile. Can I have her again?", 'Odile', 'Odile'],
      ['it is for Leander Voss. From all of us', 'Leander Voss', 'Leander Voss'],
      ['ask for Mr. Tansley', 'Mr. Tansley', 'Mr. Tansley'],
      ['speak to J. Fenwick', 'J. Fenwick', 'J. Fenwick'],
      ['contact Anna-Maria  Lowe', 'Anna-Maria  Lowe', 'Anna-Maria Lowe'],
    ],
    ['can i speak to someone', 'for Friday', 'I am cross'],
  ],
  [
    'address',
    [
      ['I live at 5 Weir Street, Dunlow', '5 Weir Street, Dunlow', '5 Weir Street, Dunlow'],
      ['27 Harbour View', '27 Harbour View', '27 Harbour View'],
      ['the flat at 3b Station Road', '3b Station Road', '3b Station Road'],
      [
        '1600 Oak Drive, Springfield, IL 62704',
        '1600 Oak Drive, Springfield, IL 62704',
        '1600 Oak Drive, Springfield, IL 62704',
      ],
      ['Calle Mayor 12, 28013 Madrid', 'Calle Mayor 12, 28013 Madrid', 'Calle Mayor 12, 28013 Madrid'],
      ['Rose Cottage, Mill Lane, Hexby', 'Rose Cottage, Mill Lane, Hexby', 'Rose Cottage, Mill Lane, Hexby'],
      ['Via Roma 8, 00184 Roma', 'Via Roma 8, 00184 Roma', 'Via Roma 8, 00184 Roma'],
      [
        'Keizersgracht 12, 1015 CX Amsterdam',
        'Keizersgracht 12, 1015 CX Amsterdam',
        'Keizersgracht 12, 1015 CX Amsterdam',
      ],
      ['deliver to 9 Saltpan Lane, Corrow Ferry', '9 Saltpan Lane, Corrow Ferry', '9 Saltpan Lane, Corrow Ferry'],
      [
        'Flat 2, 61 Larkspur Rise, Hexby QX7 3DN please',
        'Flat 2, 61 Larkspur Rise, Hexby QX7 3DN',
        'Flat 2, 61 Larkspur Rise, Hexby QX7 3DN',
      ],
      ['to forty one cobblers walk pellwick', 'forty one cobblers walk pellwick', 'forty one cobblers walk pellwick'],
      ['12a Mill Road', '12a Mill Road', '12a Mill Road'],
      [
        'send to Hall B, Marram Exhibition Centre, Dunlow',
        'Hall B, Marram Exhibition Centre, Dunlow',
        'Hall B, Marram Exhibition Centre, Dunlow',
      ],
      [
        '350 Fifth Avenue, New York, NY 10118',
        '350 Fifth Avenue, New York, NY 10118',
        '350 Fifth Avenue, New York, NY 10118',
      ],
      ['12 rue de la Paix, 75002 Paris', '12 rue de la Paix, 75002 Paris', '12 rue de la Paix, 75002 Paris'],
      ['Hauptstraße 5, 10115 Berlin', 'Hauptstraße 5, 10115 Berlin', 'Hauptstraße 5, 10115 Berlin'],
      ['at 14 Mill Rise please', '14 Mill Rise', '14 Mill Rise'],
      ['to 9  Saltpan  Lane,  Corrow  Ferry', '9  Saltpan  Lane,  Corrow  Ferry', '9 Saltpan Lane, Corrow Ferry'],
      [
        'Hall  B,\u00a0Marram  Centre,  Dunlow',
        'Hall  B,\u00a0Marram  Centre,  Dunlow',
        'Hall B, Marram Centre, Dunlow',
      ],
      ['DELIVER TO 9 SALTPAN LANE PLEASE', '9 SALTPAN LANE', '9 SALTPAN LANE'],
    ],
    [
      '2 of them on the way',
      'three roses by the road',
      'two large green please',
      '3 small green tea',
      'FOUR HUNDRED SQUARE LABELS FOR JARS',
    ],
  ],
])('%s', (kind, cases, none) => {
  const find = finder({ kind });
  it.each(cases)('in "%s"', (text, words, value) => {
    expect(find(text)).toEqual([[words, value]]);
  });
  it.each(none)('none in "%s"', (text) => {
    expect(find(text)).toEqual([]);
  });
});

describe('codes', () => {
  const find = finder({ kind: 'pattern', pattern: 'J\\d{6}' });
  it.each([
    ['jay five four one nine oh six', 'J541906'],
    ['its j 584 220', 'J584220'],
    ['j 5 4 1 9 0 6 please', 'J541906'],
    ['jay double five one triple oh', 'J551000'],
    ['j541906', 'J541906'],
  ])('spelt out in "%s"', (text, value) => {
    expect(find(text).map(([, value]) => value)).toEqual([value]);
  });

  it('have their dash put back', () => {
    const dashed = finder({ kind: 'pattern', pattern: 'LM-\\d{5}' });
    for (const text of ['lm 20418', 'LM20418', 'ell em two oh four one eight', 'LM-20418'])
      expect(
        dashed(text).map(([, value]) => value),
        text,
      ).toEqual(['LM-20418']);
    const plate = finder({ kind: 'pattern', pattern: '[A-Z]{2}\\d{2} ?[A-Z]{3}' });
    expect(plate('reg ab12cde')).toEqual([['ab12cde', 'AB12CDE']]);
  });

  it('are not made of words that are none', () => {
    for (const text of ['I have 5 of them', 'j5419067', 'two for the price of one'])
      expect(find(text), text).toEqual([]);
  });
});
