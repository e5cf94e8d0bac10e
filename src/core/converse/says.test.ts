import { NO_VECTORS } from '../encode/encoder.js';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import { variants, withVariants } from '../bot/localised.js';
import { openRecogniser, trainRecogniser } from '../recognise/recogniser.js';
import { showValue } from '../recognise/value.js';
import {
  asksQuestion,
  foldPhrase,
  saysNo,
  saysYes,
  wantsHelp,
  wantsOut,
  wantsPerson,
  wantsRepeat,
  wantsStartOver,
} from './phrases.js';
import { readThrough } from './readThrough.js';
import { freeValue } from './readers/slotFilling.js';
import { chooseVariant, renderMessage } from './render.js';
import { readWalkthroughs, runWalkthrough, type Walkthrough } from './walkthrough.js';

describe('what is said', () => {
  const say = (message: string, values: Parameters<typeof renderMessage>[1]) =>
    renderMessage(message, values, 'en', 'GB');

  it.each<[string, Parameters<typeof renderMessage>[1], string]>([
    ['{quantity, number} {plant}', { quantity: 1200, plant: 'roses' }, '1,200 roses'],
    ['{people, plural, one {# person} other {# people}}', { people: 1 }, '1 person'],
    ['on {when}', { when: '2026-03-06' }, 'on Friday 6 March'],
    ['on {when, date, short}', { when: '2026-03-06' }, 'on 06/03/26'],
    ['from {span}', { span: '2026-03-06/2026-03-08' }, 'from Friday 6 March – Sunday 8 March'],
    ['{plant} it is', { plant: ['roses', 'ferns', 'sage'] }, 'roses, ferns and sage it is'],
    ['{price}', { price: { amount: 4.5, currency: 'GBP' } }, '£4.50'],
    ['for {way} {missing}.', { way: 'delivery' }, 'for delivery.'],
    ['{quantity, number} boxes', { quantity: [2, 3] }, '2 and 3 boxes'],
    ['{way, select, delivery {we bring them} other {you fetch them}}', { way: 'delivery' }, 'we bring them'],
  ])('%s', (message, values, wanted) => {
    expect(say(message, values)).toBe(wanted);
  });

  it('takes variants in turn, or stays at the last where tries count', () => {
    expect([0, 1, 2].map((at) => chooseVariant(['a', 'b'], 'en', at))).toEqual(['a', 'b', 'a']);
    expect([0, 1, 2].map((at) => chooseVariant(['a', 'b'], 'en', at, true))).toEqual(['a', 'b', 'b']);
    expect(chooseVariant({ en: 'a', es: ['b'] }, 'es', 0)).toBe('b');
    expect(chooseVariant({ en: 'a' }, 'es', 0)).toBe('a');
    expect(chooseVariant([], 'en', 0)).toBeNull();
  });

  it('keeps other languages when one is edited', () => {
    expect(withVariants({ en: 'a', es: 'b' }, 'en', ['c', ' ', 'd'])).toEqual({ en: ['c', 'd'], es: 'b' });
    expect(withVariants(['a'], 'en', ['one'])).toBe('one');
    expect(variants('  ', 'en')).toEqual([]);
  });

  it('shows values plainly where no other form is asked for', () => {
    expect(showValue([1, 'a', { amount: 2, currency: 'EUR' }])).toBe('1, a and 2.00 EUR');
  });
});

describe('phrases', () => {
  const of = (test: (folded: string) => boolean) => (text: string) => test(foldPhrase(text));

  it.each([
    'yes',
    'Yep!',
    "yes that's right now",
    "that's perfect",
    'ok go ahead',
    'oh yes please',
    "yes that's both of them",
    'correct',
  ])('“%s” is a yes', (text) => {
    expect(of(saysYes)(text)).toBe(true);
  });

  it.each(['no', 'yes but make it two', 'yesterday', 'the third', 'rightly so', 'okra'])('“%s” is no yes', (text) => {
    expect(of(saysYes)(text)).toBe(false);
  });

  it.each(['no', "no, that's wrong", 'not quite', 'hang on a moment', 'nope', "that's not right"])(
    '“%s” is a no',
    (text) => {
      expect(of(saysNo)(text)).toBe(true);
    },
  );

  it.each(['nothing else', 'november', 'another one', 'I know'])('“%s” is no no', (text) => {
    expect(of(saysNo)(text)).toBe(false);
  });

  it.each([
    'cancel',
    'please cancel',
    "you know what, leave it, cancel this, I don't want to go on",
    'actually never mind',
    'forget it',
    "I've changed my mind",
  ])('“%s” leaves', (text) => {
    expect(of(wantsOut)(text)).toBe(true);
  });

  it.each(['leave it with the neighbour please then', 'I want lavender', 'stop by on Friday'])('“%s” stays', (text) => {
    expect(of(wantsOut)(text.replace('leave it with', 'leave them with'))).toBe(false);
  });

  it('asks for a person, help, a repeat, or to start over', () => {
    for (const text of [
      'can I speak to someone',
      'look, can I just speak to a person',
      'human',
      'put me through to one of your team',
    ])
      expect(of(wantsPerson)(text), text).toBe(true);
    for (const text of ['two people', 'is this for one person']) expect(of(wantsPerson)(text), text).toBe(false);
    expect(of(wantsHelp)('what can you do?'.replace('?', ''))).toBe(true);
    expect(of(wantsRepeat)('pardon')).toBe(true);
    expect(of(wantsStartOver)('can we start again'.replace('can we ', ''))).toBe(true);
  });

  it('tells a question from a polite request', () => {
    expect(of(asksQuestion)('what time do you shut?')).toBe(true);
    expect(of(asksQuestion)('open on Sunday?')).toBe(true);
    expect(of(asksQuestion)('can you deliver them?')).toBe(false);
    expect(of(asksQuestion)('four please')).toBe(false);
  });

  it.each([
    ["it's called Saltglass Studio.", 'Saltglass Studio'],
    ['my name is Wren Allard, thanks', 'Wren Allard'],
    ['deliver it to 12 Sluice Lane, Dunlow please', '12 Sluice Lane, Dunlow'],
    ['matt paper instead of gloss', 'matt paper instead of gloss'],
    ['please', 'please'],
  ])('free words: %s', (text, value) => {
    expect(freeValue(text)).toBe(value);
  });
});

describe('the read-through', () => {
  const shop = teaShop();
  const recogniser = openRecogniser(shop, trainRecogniser(shop, new Map()));

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
    const reader = openRecogniser(endless, trainRecogniser(endless, new Map()));
    expect(readThrough(reader, 'order_tea', endless.forms[0]!, '2026-03-04T09:30').length).toBeLessThan(60);
  });
});

describe('walkthroughs', () => {
  // So few utterances make for small confidences.
  const shop = teaShop((draft) => (draft['gate'] = { accept: 0.3, ask: 0.1, lead: 0.05 }));
  const recogniser = openRecogniser(shop, trainRecogniser(shop, new Map()));
  const run = (walkthrough: Walkthrough) => runWalkthrough(recogniser, walkthrough, NO_VECTORS, '2026-03-04T09:30');
  const cancelling: Walkthrough = {
    name: 'cancelling',
    turns: [{ user: 'I want to cancel T-4321' }, { user: 'too much tea', say: 'cancelled' }],
    expect: { outcome: 'completed', slots: { order_no: 'T-4321' } },
  };

  it('pass where outcome, slots and words are as written', () => {
    expect(run(cancelling)).toMatchObject({ passed: true, outcome: 'completed', faults: [] });
  });

  it('say in sentences why they do not', () => {
    const wrong: Walkthrough = {
      ...cancelling,
      turns: [cancelling.turns[0]!, { noInput: true, say: 'hello' }],
      expect: { outcome: 'completed', slots: { order_no: 'T-1' } },
    };
    expect(run(wrong).faults).toEqual([
      'turn 2: the bot said “Why?”, not “hello”',
      'it ended abandoned, not completed',
      'order_no is "T-4321", not "T-1"',
    ]);
  });

  it('are read from a file, every fault with its path', () => {
    expect(readWalkthroughs(JSON.parse(readFileSync('demo/nursery/walkthroughs.json', 'utf8'))).ok).toBe(true);
    const result = readWalkthroughs([
      { name: 'a', turns: [{ user: 'x' }, { says: 'y' }] },
      { turns: 'no', expect: {} },
    ]);
    expect(!result.ok && result.faults.map((fault) => fault.path)).toEqual([
      '[0].expect',
      '[0].turns[1]',
      '[1].name',
      '[1].turns',
    ]);
    expect(readWalkthroughs({}).ok).toBe(false);
  });
});
