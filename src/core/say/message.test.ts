import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { SlotValue } from '../recognise/value.js';
import { argumentsBeside, argumentsOf, readMessage, renameArgument, showFault } from './message.js';
import { chooseVariant, renderMessage, wordingForTry } from './render.js';
import { allWordings } from '../bot/localised.js';
import { ENGINE_TEXTS, TEXT_NAMES } from './engineTexts.js';
import { defaultText } from './texts.js';

const say = (message: string, values: Record<string, SlotValue> = {}, language = 'en', region = 'GB') =>
  renderMessage(message, values, language, region);

describe('what is said', () => {
  it.each<[string, Record<string, SlotValue>, string]>([
    ['{quantity, number} {plant}', { quantity: 1200, plant: 'roses' }, '1,200 roses'],
    ['{people, plural, one {# person} other {# people}}', { people: 1 }, '1 person'],
    ['{people, plural, =0 {nobody} one {# person} other {# people}}', { people: 0 }, 'nobody'],
    ['the {place, selectordinal, one {#st} two {#nd} few {#rd} other {#th}} time', { place: 3 }, 'the 3rd time'],
    ['on {when}', { when: '2026-03-06' }, 'on Friday 6 March'],
    ['on {when, date, short}', { when: '2026-03-06' }, 'on 06/03/26'],
    ['at {moment, time, short}', { moment: '2026-03-06T15:30' }, 'at 15:30'],
    ['from {span}', { span: '2026-03-06/2026-03-08' }, 'from Friday 6 March – Sunday 8 March'],
    ['{plant} it is', { plant: ['roses', 'ferns', 'sage'] }, 'roses, ferns and sage it is'],
    ['{price}', { price: { amount: 4.5, currency: 'GBP' } }, '£4.50'],
    ['{price}', { price: { amount: 4.5, currency: 'pounds' } }, '4.50 pounds'],
    ['{way, select, delivery {we bring them} other {you fetch them}}', { way: 'delivery' }, 'we bring them'],
    ['{tool, select, remote_microphone {the small one} other {it}}', { tool: 'remote microphone' }, 'the small one'],
  ])('%s', (message, values, wanted) => {
    expect(say(message, values)).toBe(wanted);
  });

  it.each<[string, Record<string, SlotValue>, string]>([
    ['at {time, time, short}', { time: '15:30' }, 'at 15:30'],
    ['on {day, date, long}', { day: '2026-03-06/2026-03-08' }, 'from Friday 6 March to Sunday 8 March'],
    ['{quantity, number} boxes', { quantity: [2, 3] }, '2 and 3 boxes'],
    ['{quantity, plural, one {# plant} other {# plants}}', { quantity: [2, 3] }, '2 and 3 plants'],
    ['{quantity, plural, one {# plant} other {# plants}}', { quantity: 'a few' }, 'a few plants'],
    ['{day, date, long}', { day: 'some day' }, 'some day'],
  ])('says plainly what does not fit its form: %s', (message, values, wanted) => {
    expect(say(message, values)).toBe(wanted);
  });

  it.each<[string, string]>([
    ['The ticket is PL-{ticket}. See you on {day}.', 'See you on Friday 6 March.'],
    ['Your ticket is {ticket}, and we close at six.', 'and we close at six.'],
    ['See you on {day}, at {time}.', 'See you on Friday 6 March.'],
    ['See you on {day} at {time}.', 'See you on Friday 6 March at.'],
    ['{people, plural, one {# person} other {# people}}, {day}', 'Friday 6 March'],
    ['Sorry, we do not send to {country}.', 'Sorry.'],
  ])('leaves out the clause of what holds nothing: %s', (message, wanted) => {
    const said = say(message, { day: '2026-03-06' });
    expect(said.toLowerCase()).toBe(wanted.toLowerCase());
  });

  it('says periods in words', () => {
    expect(say('{day} at {time}.', { day: '2026-03-06', time: '06:00/12:00' })).toBe('Friday 6 March in the morning.');
    expect(say('At {time}?', { time: '16:00/19:00' })).toBe('from 16:00 to 19:00?');
    expect(say('Open {time}.', { time: '18:00/22:00' })).toBe('Open evening.');
  });

  it('takes tags for plain signs and properties of objects for nothing', () => {
    expect(say('<b>Hello</b> {name}', { name: 'Wren' })).toBe('<b>Hello</b> Wren');
    expect(say('Hello {constructor}{__proto__}!')).toBe('Hello!');
    expect(say('{constructor} it is', { constructor: 'mint' })).toBe('mint it is');
  });

  it('says a text that cannot be read as it stands, and speaks in any language', () => {
    expect(say('Thanks {', {})).toBe('Thanks {');
    expect(say('{day}', { day: '2026-03-06' }, 'xx_bad', 'nowhere')).toContain('6');
    expect(say('{day}', { day: '2026-03-06' }, 'es', 'ES')).toBe('viernes, 6 de marzo');
  });

  it('never throws, whatever the text and the values', () => {
    const part = fc.constantFrom(
      '{a}',
      '{a, number}',
      '{a, date, long}',
      '{a, time, short}',
      '{b, plural, one {#} other {# {a}}}',
      '{',
      '}',
      "'{",
      '{a, select, x {y} other {{b}}}',
      '<i>',
      '</i>',
      ' and ',
      '. ',
      '{a, number, ::currency/XXX}',
      '{b, date, ::yyyyMMdd}',
    );
    const value = fc.oneof(
      fc.string(),
      fc.integer(),
      fc.double(),
      fc.constantFrom('2026-02-30', '25:99', '2026-03-01/2026-03-04', '/', 'T'),
      fc.array(fc.integer()),
      fc.record({ amount: fc.double(), currency: fc.string() }),
    );
    fc.assert(
      fc.property(fc.array(part), value, value, fc.string(), (parts, a, b, language) => {
        expect(typeof say(parts.join(''), { a, b }, language)).toBe('string');
      }),
      { numRuns: 400 },
    );
  });
});

describe('the arguments of a text', () => {
  it('are found with their places, also within a plural', () => {
    const source = 'So {n, plural, one {one {plant}} other {# {plant}}} on {when, date, short}';
    expect(argumentsOf(source).map(({ name, use }) => [name, use])).toEqual([
      ['n', 'plural'],
      ['plant', 'plain'],
      ['plant', 'plain'],
      ['when', 'date'],
    ]);
    for (const { name, start, end } of argumentsOf(source)) expect(source.slice(start, end)).toBe(name);
  });

  it('are renamed wherever they stand, and nothing else is', () => {
    expect(renameArgument('plant {plant}: {n, plural, other {# { plant }}}', 'plant', 'tree')).toBe(
      'plant {tree}: {n, plural, other {# { tree }}}',
    );
    expect(renameArgument('broken {plant', 'plant', 'tree')).toBe('broken {plant');
  });
});

describe('a text that cannot be read', () => {
  it.each([
    ['Thanks {', /opened here and not closed/, 7],
    ['{}', /no name between/, 0],
    ['Hi {a, foo}', /form is not known/, 7],
    ['{a, select, x {b}}', /add other/, 17],
    ['{d, select, remote microphone {x} other {y}}', /several words is written with _/, 19],
    ['{'.repeat(60), /too deep/, 0],
  ])('is refused in words of our own, with the place: %s', (source, message, start) => {
    const result = readMessage(source);
    expect(result.ok).toBe(false);
    if (result.ok) return;
    expect(result.fault.message).toMatch(message);
    expect(result.fault.message).not.toMatch(/[A-Z]{3,}_/);
    expect(result.fault.start).toBe(start);
    expect(showFault(source, result.fault).length).toBeLessThan(200);
  });
});

describe('wordings', () => {
  it('says several things each with its number, where these stand side by side', () => {
    const values = { n: [1, 2], size: 'small', thing: ['rose', 'fern'], way: ['post', 'van'] };
    const said = (source: string) => renderMessage(source, values, 'en', 'GB');
    expect(said('So {n, number} {size} {thing}, by {way}.')).toBe('So 1 small rose and 2 small fern, by post and van.');
    expect(said('{n} of {thing}')).toBe('1 and 2 of rose and fern');
    expect(said('{thing} {way}')).toBe('rose and fern post and van');
    expect(renderMessage('{n} {thing}', { n: [1, 2, 3], thing: ['rose', 'fern'] }, 'en', 'GB')).toBe(
      '1, 2 and 3 rose and fern',
    );
  });

  it('knows what stands beside an argument', () => {
    expect(argumentsBeside('So {n, number} {size} {thing}, by {way}.', 'n')).toEqual(['n', 'size', 'thing']);
    expect(argumentsBeside('{n, plural, one {# thing} other {# things}} ({thing}) by {way}', 'n')).toEqual([
      'n',
      'thing',
    ]);
    expect(argumentsBeside('{kind} for {n}', 'n')).toEqual(['n']);
    expect(argumentsBeside('{kind}', 'n')).toEqual([]);
  });

  it('take turns, or follow the tries', () => {
    expect([0, 1, 2].map((at) => chooseVariant(['a', 'b'], 'en', at))).toEqual(['a', 'b', 'a']);
    expect([0, 1, 2].map((at) => wordingForTry(['a', 'b'], 'en', at))).toEqual(['a', 'b', 'b']);
    expect(chooseVariant({ en: 'a', es: ['b'] }, 'es', 0)).toBe('b');
    expect(chooseVariant({ en: 'a' }, 'es', 0)).toBe('a');
    expect(chooseVariant([], 'en', 0)).toBeNull();
  });

  it('of the engine can all be read, and put in only what is listed', () => {
    for (const name of TEXT_NAMES) {
      const { arguments: known } = ENGINE_TEXTS[name];
      for (const wording of allWordings(defaultText(name))) {
        expect(readMessage(wording).ok, name).toBe(true);
        for (const argument of argumentsOf(wording)) expect(Object.keys(known), name).toContain(argument.name);
      }
    }
  });
});
