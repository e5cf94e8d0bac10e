import { NO_VECTORS } from '../encode/encoder.js';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import type { EntityKind } from '../bot/document.js';
import { variants, withVariants } from '../bot/localised.js';
import { LANGUAGES } from '../language/index.js';
import { openRecogniser } from '../recognise/open.js';
import { prepareTraining } from '../recognise/train.js';
import { showValue } from '../recognise/value.js';
import { freeValue, mayBe } from './freeWords.js';
import { helpThrough, readThrough } from './readThrough.js';
import { readWalkthroughs } from '../formats/walkthroughFile.js';
import { runWalkthrough, type Walkthrough } from './walkthrough.js';
import { namedAs } from '../text/named.js';

describe('wordings', () => {
  it('keep other languages when one is edited', () => {
    expect(withVariants({ en: 'a', es: 'b' }, 'en', ['c', ' ', 'd'])).toEqual({ en: ['c', 'd'], es: 'b' });
    expect(withVariants(['a'], 'en', ['one'])).toBe('one');
    expect(variants('  ', 'en')).toEqual([]);
  });

  it('show values plainly where no other form is asked for', () => {
    expect(showValue([1, 'a', { amount: 2, currency: 'EUR' }])).toBe('1, a and 2.00 EUR');
  });
});

describe('free words', () => {
  it.each([
    ["it's called Saltglass Studio.", 'Saltglass Studio'],
    ['my name is Wren Allard, thanks', 'Wren Allard'],
    ['put it under Odette Farrow', 'Odette Farrow'],
    ['deliver it to 12 Sluice Lane, Dunlow please', '12 Sluice Lane, Dunlow'],
    ['matt paper instead of gloss', 'matt paper instead of gloss'],
    ['please', 'please'],
  ])('are the words of an answer without its lead-in: %s', (text, value) => {
    expect(freeValue(text, LANGUAGES.en)).toBe(value);
  });

  it.each<[EntityKind, string[], string[]]>([
    [
      'person',
      ['Wren', 'odette farrow', 'Jo Bell', 'sue'],
      ['ridiculous', 'no, 4', 'are you a robot', 'thanks', 'why do you ask', '5'],
    ],
    ['country', ['Ireland', 'Freedonia'], ['no idea yet', 'not sure', '12']],
    ['address', ['12 Sluice Lane, Dunlow', 'the old mill by the bridge', 'Rose Cottage'], ['please', 'whatever']],
    ['free', ['half the pots were smashed', 'The Drowned Rat'], ['5', 'two', '?']],
  ])('of kind %s can be some and not others', (kind, may, mayNot) => {
    for (const words of may) expect(mayBe(kind, words, LANGUAGES.en), words).toBe(true);
    for (const words of mayNot) expect(mayBe(kind, words, LANGUAGES.en), words).toBe(false);
  });
});

describe('the read-through', () => {
  const shop = teaShop();
  const recogniser = openRecogniser(shop, prepareTraining(shop).train(new Map()));

  it('writes out the conversation that the form gives', () => {
    const lines = readThrough(recogniser, 'order_tea', shop.forms[0]!, '2026-03-04T09:30').map((line) => line.text);
    expect(lines).toEqual([
      '(The customer wants to buy tea)',
      'How many?',
      'four',
      'Which tea?',
      'green tea',
      'Delivery or collection?',
      'delivery',
      'Which address?',
      '12 Sluice Lane, Dunlow',
      '4 green tea for delivery. Right?',
      'yes',
      'Ordered as 40001.',
    ]);
  });

  it('invents codes that their pattern takes', () => {
    const lines = readThrough(recogniser, 'cancel_order', shop.forms[1]!, '2026-03-04T09:30').map((line) => line.text);
    expect(lines).toContain('T-7777');
    expect(lines.at(-1)).toBe('Cancelled.');
  });

  it('comes to an end where a slot can never be filled', () => {
    const endless = teaShop((draft) => {
      (draft['entities'] as { name: string; values?: unknown[] }[])[0]!.values = [];
    });
    const reader = openRecogniser(endless, prepareTraining(endless).train(new Map()));
    expect(readThrough(reader, 'order_tea', endless.forms[0]!, '2026-03-04T09:30').length).toBeLessThan(60);
  });
});

describe('what the bot does where it cannot act', () => {
  const by = { now: '2026-03-04T09:30', encode: () => Promise.resolve(NO_VECTORS) };
  /** A shop that acts on nothing but what it is certain of. */
  const careful = (clarify: object) =>
    teaShop((draft) => (draft['gate'] = { accept: 1, ask: 0.02, lead: 0.05, clarify }));
  const through = (clarify: object, unsure: string[]) => {
    const shop = careful(clarify);
    return helpThrough(openRecogniser(shop, prepareTraining(shop).train(new Map())), unsure, by);
  };

  it('is written out: which of several, none of them, nothing understood, nothing said', async () => {
    const { several, noMatch, silence } = await through({}, ['???', 'I want to cancel some tea']);
    expect(several?.slice(0, 3)).toEqual([
      { from: 'user', text: 'I want to cancel some tea' },
      { from: 'bot', text: expect.stringContaining(' or ') as string },
      { from: 'user', text: 'none of those' },
    ]);
    expect(several?.[3]?.from).toBe('bot');
    expect(noMatch.filter(({ from }) => from === 'user').map(({ text }) => text)).toContain('???');
    expect(silence[0]).toEqual({ from: 'user', text: '(nothing)' });
  });

  it('follows what is set: none of those goes to a desk', async () => {
    const tried = await through({}, ['I want to cancel some tea']);
    const desk = await through({ neither: 'desk' }, ['I want to cancel some tea']);
    expect(desk.several?.slice(0, 3)).toEqual(tried.several?.slice(0, 3));
    expect(desk.several?.slice(3)).not.toEqual(tried.several?.slice(3));
  });

  it('shows nothing that no message brings about', async () => {
    expect(await through({}, ['???'])).toMatchObject({ several: null, one: null });
  });
});

describe('walkthroughs', () => {
  // So few utterances make for small confidences.
  const shop = teaShop((draft) => (draft['gate'] = { accept: 0.3, ask: 0.1, lead: 0.05 }));
  const recogniser = openRecogniser(shop, prepareTraining(shop).train(new Map()));
  const run = (walkthrough: Walkthrough) => runWalkthrough(recogniser, walkthrough, NO_VECTORS, '2026-03-04T09:30');
  const cancelling: Walkthrough = {
    name: 'cancelling',
    turns: [{ user: 'I want to cancel T-4321' }, { user: 'too much tea', say: 'cancelled' }],
    expect: { outcome: 'completed', slots: namedAs({ order_no: 'T-4321' }) },
  };

  it('pass where outcome, slots and words are as written', () => {
    expect(run(cancelling)).toMatchObject({ passed: true, outcome: 'completed', faults: [] });
  });

  it('say in sentences why they do not', () => {
    const wrong: Walkthrough = {
      ...cancelling,
      turns: [cancelling.turns[0]!, { noInput: true, say: 'hello' }],
      expect: { outcome: 'completed', slots: namedAs({ order_no: 'T-1' }) },
    };
    expect(run(wrong).faults).toEqual([
      'turn 2: the bot said “Are you still there? Why?”, not “hello”',
      'it ended abandoned, not completed',
      'order_no is "T-4321", not "T-1"',
    ]);
  });

  it('are read from a file, every fault with its path, and not one of a file with a fault', () => {
    expect(readWalkthroughs(JSON.parse(readFileSync('demo/nursery/walkthroughs.json', 'utf8'))).ok).toBe(true);
    const result = readWalkthroughs([
      { name: 'a', turns: [{ user: 'x' }, { says: 'y' }] },
      { turns: 'no', expect: {} },
      { name: 'b', turns: [{ user: 'x', say: 5 }], now: 'yesterday', expect: { outcome: 'nonsense', slots: [] } },
      { name: 'c', turns: [], expect: [] },
      { name: 'good', turns: [{ user: 'x' }], expect: { slots: { amount: 2, tea: null, price: [{ amount: 5 }] } } },
    ]);
    const paths = result.ok ? [] : result.faults.map(({ path }) => path);
    for (const path of ['[0].expect', '[0].turns[1]', '[1].name', '[1].turns', '[2].turns[0].say', '[2].now']) {
      expect(paths).toContain(path);
    }
    for (const path of ['[2].expect.outcome', '[2].expect.slots', '[3].turns', '[3].expect'])
      expect(paths).toContain(path);
    expect(paths.filter((path) => path.startsWith('[4]'))).toEqual([]);
    expect(readWalkthroughs({}).ok).toBe(false);
  });
});
