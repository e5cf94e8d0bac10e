import { beforeAll, describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import { seeded } from '../measure/significance.js';
import { NO_VECTORS } from '../encode/encoder.js';
import { languageOf } from '../language/index.js';
import { teach } from '../recognise/answer.js';
import { openRecogniser, type Recogniser } from '../recognise/open.js';
import { wrongSlots } from './customer.js';
import { simulatedFigures } from './figures.js';
import { goalIntents, makeGoal, wantFor, type Want } from './goal.js';
import { simulate, type SimulatedConversation } from './simulate.js';
import { TEMPERS } from './tempers.js';
import { heldOf, namedAs } from '../text/named.js';

const encode = () => Promise.resolve(NO_VECTORS);
const NOW = '2026-03-04T09:30';

async function conversations(recogniser: Recogniser, count: number, seed = 1): Promise<SimulatedConversation[]> {
  const all: SimulatedConversation[] = [];
  for (let number = 0; number < count; number++) {
    const one = await simulate(recogniser, number, { seed, encode, now: NOW });
    if (one) all.push(one);
  }
  return all;
}

describe('what a customer has come for', () => {
  const document = teaShop();
  const language = languageOf(document);

  it('is a form that an intent with utterances opens', () => {
    const names = goalIntents(document).map(({ name }) => name);
    expect(names).toContain('order_tea');
    expect(goalIntents({ ...document, intents: document.intents.map((one) => ({ ...one, utterances: [] })) })).toEqual(
      [],
    );
  });

  it('is said in the words of an utterance, with what is wanted in the place of what is marked', () => {
    const intent = document.intents.find(({ name }) => name === 'order_tea')!;
    const marked = { ...intent, utterances: intent.utterances.filter(({ marks }) => marks.length === 3) };
    const goal = makeGoal(document, marked, seeded(4), language);
    const said = (slot: string) => heldOf(goal.wants, slot)!.said;
    expect(goal.opening).toBe(`please send me ${said('amount')} ${said('size')} ${said('tea')}`);
  });

  it('is known where words tell it: a value of a list by any of its names, a number', () => {
    const [form] = document.forms;
    const tea = form!.slots.find(({ entity }) => entity === 'tea')!;
    const amount = form!.slots.find(({ entity }) => entity === 'number')!;
    const draw = seeded(2);
    const wants = Array.from({ length: 30 }, () => wantFor(document, tea, draw, language));
    expect(wants).toContainEqual({ said: 'builders', value: 'black tea' });
    expect(wantFor(document, amount, seeded(1), language).value).toEqual(expect.any(Number));
  });

  it('is missed by a form that holds something else', () => {
    const goal = {
      intent: 'i',
      form: 'f',
      opening: '',
      otherwise: [],
      wants: namedAs<Want>({ tea: { said: 'builders', value: 'black tea' }, day: { said: 'Friday' } }),
    };
    expect(wrongSlots(namedAs({ tea: 'black tea', day: '2026-03-06' }), goal)).toEqual([]);
    expect(wrongSlots(namedAs({ tea: ['black tea'] }), goal)).toEqual([]);
    expect(wrongSlots(namedAs({ tea: 'mint tea', other: 'x' }), goal)).toEqual(['tea']);
  });
});

describe('simulated customers', () => {
  let recogniser: Recogniser;
  let all: SimulatedConversation[];

  beforeAll(async () => {
    const document = teaShop();
    recogniser = openRecogniser(document, await teach(document, encode));
    all = await conversations(recogniser, 48);
  });

  it('are the same for the same seed, and others for another', async () => {
    expect(await conversations(recogniser, 6)).toEqual(all.slice(0, 6));
    expect(await conversations(recogniser, 6, 2)).not.toEqual(all.slice(0, 6));
  });

  it('take turns in temper, and come for every form', () => {
    expect(new Set(all.map(({ temper }) => temper))).toEqual(new Set(TEMPERS.map(({ name }) => name)));
    expect(new Set(all.map(({ intent }) => intent))).toEqual(
      new Set(goalIntents(recogniser.document).map(({ name }) => name)),
    );
  });

  it('come to an end each, and mostly get what they came for', () => {
    for (const { transcript } of all) expect(transcript.length).toBeLessThanOrEqual(40);
    const done = all.filter(({ end }) => end === 'completed');
    expect(done.length / all.length).toBeGreaterThan(0.7);
    for (const { wrong, at } of done) expect({ wrong, at }).toEqual({ wrong: [], at: null });
  });

  it('behave as their temper says', () => {
    const saysNothing = (one: SimulatedConversation) => one.transcript.some(({ noInput }) => noInput);
    const silent = all.filter(({ temper }) => temper === 'silent');
    expect(silent.some(saysNothing)).toBe(true);
    expect(all.filter(({ temper }) => temper !== 'silent').some(saysNothing)).toBe(false);
    const words = (temper: string) => {
      const own = all.filter((one) => one.temper === temper).flatMap(({ transcript }) => transcript.slice(1));
      return own.reduce((sum, { user = '' }) => sum + user.split(' ').length, 0) / own.length;
    };
    expect(words('chatty')).toBeGreaterThan(words('terse') * 2);
  });

  it('have nothing to come for where no form is', async () => {
    const document = { ...recogniser.document, intents: recogniser.document.intents.map(({ form: _, ...one }) => one) };
    const formless = openRecogniser(document, await teach(document, encode));
    expect(await simulate(formless, 0, { seed: 1, encode, now: NOW })).toBeNull();
  });

  it('find out a bot that goes round in a circle', async () => {
    const document = teaShop((draft) => {
      draft['noMatch'] = { tries: 9 };
      for (const entity of draft['entities'] as { name: string; values?: unknown[] }[])
        if (entity.name === 'tea') entity.values = [];
    });
    const circling = openRecogniser(document, await teach(document, encode));
    const orders = (await conversations(circling, 24)).filter(({ intent }) => intent === 'order_tea');
    expect(orders.some(({ end, at }) => end === 'stuck' && at === 'tea')).toBe(true);
  });
});

describe('the figures of simulated customers', () => {
  const one = (more: Partial<SimulatedConversation>): SimulatedConversation => ({
    number: 0,
    temper: 'terse',
    intent: 'i',
    form: 'f',
    end: 'completed',
    at: null,
    wrong: [],
    turns: 3,
    transcript: [],
    slots: {},
    ...more,
  });

  it('tell how many completed, in how many messages, and where the others got stuck', () => {
    const { all, tempers, forms, places, wrong } = simulatedFigures([
      one({}),
      one({ turns: 5, temper: 'chatty' }),
      one({ end: 'stuck', at: 'day' }),
      one({ end: 'stuck', at: 'day', temper: 'chatty' }),
      one({ end: 'completed wrongly', wrong: ['tea'], form: 'g' }),
    ]);
    expect(all).toMatchObject({ conversations: 5, completed: 2, turns: 4, ends: { stuck: 2, 'completed wrongly': 1 } });
    expect(tempers.map(({ name, completed }) => [name, completed])).toEqual([
      ['terse', 1],
      ['chatty', 1],
    ]);
    expect(forms.map(({ name, conversations }) => [name, conversations])).toEqual([
      ['f', 4],
      ['g', 1],
    ]);
    expect(places).toEqual([{ form: 'f', at: 'day', end: 'stuck', count: 2 }]);
    expect(wrong).toEqual([{ form: 'g', slot: 'tea', count: 1 }]);
    expect(simulatedFigures([]).all).toMatchObject({ conversations: 0, turns: null, interval: null });
  });
});
