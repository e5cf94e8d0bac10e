import { describe, expect, it } from 'vitest';
import { readBot } from './file.js';
import type { Fault } from '../shape/fault.js';

function faultsOf(value: unknown): Fault[] {
  const result = readBot(value);
  return result.ok ? [] : result.faults;
}

const base = { reedGate: 1, name: 'A bot' };

describe('readBot', () => {
  it('fills in what a file may leave out', () => {
    const result = readBot(base);
    expect(result.ok && result.document).toMatchObject({
      languages: ['en'],
      timeZone: 'Europe/London',
      region: 'GB',
      intents: [],
      gate: { accept: 0.88 },
    });
  });

  it('names the entity that was meant', () => {
    const faults = faultsOf({
      ...base,
      entities: [{ name: 'size', kind: 'list', values: ['small'] }],
      forms: [
        {
          name: 'order',
          slots: [
            { name: 'a', entity: 'size' },
            { name: 'b', entity: 'number' },
            { name: 'c', entity: 'siz' },
          ],
        },
      ],
    });
    expect(faults).toEqual([
      { path: 'forms[0].slots[2].entity', message: 'there is no entity "siz"; did you mean "size"?' },
    ]);
  });

  it('lists every fault, not only the first', () => {
    const faults = faultsOf({
      ...base,
      intents: [
        { name: 'order plants', utterances: ['<plant>rose'] },
        { name: 'x', utterances: [''] },
        { utterances: 'no list' },
      ],
    });
    expect(faults.map((fault) => fault.path).sort()).toEqual([
      'intents[0].name',
      'intents[1].utterances[0]',
      'intents[2].name',
      'intents[2].utterances',
    ]);
  });

  it.each([
    ['a key that is not known', { ...base, intets: [] }, 'intets', /did you mean "intents"/],
    ['another version', { ...base, reedGate: 2 }, 'reedGate', /version/],
    ['a list at the top', [], '', /one object/],
    ['nothing', null, '', /empty/],
    ['a level above one', { ...base, gate: { accept: 2 } }, 'gate.accept', /at most 1/],
    ['levels the wrong way round', { ...base, gate: { accept: 0.2, ask: 0.4 } }, 'gate.ask', /not be higher/],
    ['a time zone that is none', { ...base, timeZone: 'Europe/Nowhere' }, 'timeZone', /no time zone/],
    [
      'a pattern that cannot be read',
      { ...base, entities: [{ name: 'e', kind: 'pattern', pattern: '(' }] },
      'entities[0].pattern',
      /cannot be read/,
    ],
    [
      'a pattern that every message would wait for',
      { ...base, entities: [{ name: 'e', kind: 'pattern', pattern: '(\\w+\\s*){1,1000}x' }] },
      'entities[0].pattern',
      /too heavy.*\{1,20\}/,
    ],
    [
      'patterns that are too heavy together',
      {
        ...base,
        entities: Array.from({ length: 200 }, (_, at) => ({
          name: `e${at}`,
          kind: 'pattern',
          pattern: `${'[A-Z]{1,60}\\d{1,40}'}-${at}`,
        })),
      },
      'entities',
      /too heavy together/,
    ],
    [
      'a pattern entity without one',
      { ...base, entities: [{ name: 'e', kind: 'pattern' }] },
      'entities[0].pattern',
      /is missing/,
    ],
    [
      'a kind that is none',
      { ...base, entities: [{ name: 'e', kind: 'lst' }] },
      'entities[0].kind',
      /did you mean "list"/,
    ],
    [
      'a form that is not there',
      { ...base, intents: [{ name: 'i', form: 'f' }] },
      'intents[0].form',
      /there is no form "f"/,
    ],
    ['a desk that is not there', { ...base, noMatch: { desk: 'x' } }, 'noMatch.desk', /there is no desk "x"/],
    [
      'braces left open',
      { ...base, forms: [{ name: 'f', slots: [], done: 'Thanks {' }] },
      'forms[0].done',
      /opened here and not closed/,
    ],
    [
      'a condition on no slot',
      { ...base, forms: [{ name: 'f', slots: [{ name: 'a', entity: 'number', when: { '==': [{ var: 'b' }, 1] } }] }] },
      'forms[0].slots[0].when',
      /no slot "b"/,
    ],
    [
      'a handover that cannot be read',
      { ...base, desks: [{ name: 'd', handover: 'To {' }] },
      'desks[0].handover',
      /not closed/,
    ],
    ['a give-up that cannot be read', { ...base, noMatch: { giveUp: 'Sorry {' } }, 'noMatch.giveUp', /not closed/],
    ['a sentence of the engine that cannot be read', { ...base, texts: { left: '{' } }, 'texts.left', /not closed/],
    ['a sentence that the engine has not', { ...base, texts: { lft: 'x' } }, 'texts.lft', /did you mean "left"/],
    ['a language that is none', { ...base, languages: ['xx_bad'] }, 'languages[0]', /is no language/],
    ['the name of a language', { ...base, languages: ['en', 'english'] }, 'languages[1]', /such as en or es/],
    ['a country that is none', { ...base, region: 'ZZ' }, 'region', /is no country/],
    [
      'a condition that walks',
      { ...base, forms: [{ name: 'f', slots: [{ name: 'a', entity: 'number', when: { map: [1] } }] }] },
      'forms[0].slots[0].when',
      /no operator "map"/,
    ],
    ['a key that every object has', { ...base, constructor: 1 }, 'constructor', /not known here/],
    ['names that repeat', { ...base, intents: [{ name: 'i' }, { name: 'i' }] }, 'intents[1].name', /names must differ/],
    [
      'marks of no slot',
      { ...base, intents: [{ name: 'i', utterances: ['a <b>c</b>'] }] },
      'intents[0].utterances[0]',
      /no slot or entity "b"/,
    ],
    ['a text where a list must stand', { ...base, intents: 'none' }, 'intents', /must be a list/],
    ['a wording that is a number', { ...base, greeting: 7 }, 'greeting', /must be a text/],
  ])('refuses %s', (_, value, path, message) => {
    const faults = faultsOf(value);
    expect(faults).toHaveLength(1);
    expect(faults[0]).toMatchObject({ path });
    expect(faults[0]!.message).toMatch(message);
  });
});
