import { describe, expect, it } from 'vitest';
import { DEFAULT_COSTS, type BotDocument } from '../bot/document.js';
import { readBot } from '../bot/file.js';
import { acceptLevel, gateOf, type IntentCare } from '../recognise/gate.js';
import {
  consequenceOf,
  costOf,
  countConsequences,
  gatedMessages,
  thresholdCurve,
  type GatedMessage,
} from './levels.js';
import { LEVELS, levelTable, meanCost, recommendGate, type Recommendation } from './recommend.js';
import { seeded } from './significance.js';
import { namedAs } from '../text/named.js';

const GATE = { accept: 0.8, ask: 0.4, lead: 0.1 };

const message = (expected: string | null, ...confidences: [intent: string, confidence: number][]): GatedMessage => ({
  expected,
  top: confidences.map(([intent, confidence]) => ({ intent, confidence })),
});

describe('what a gate makes of a message', () => {
  it.each([
    ['accepted rightly', message('a', ['a', 0.9], ['b', 0.05])],
    ['accepted wrongly', message('b', ['a', 0.9], ['b', 0.05])],
    ['accepted out of scope', message(null, ['a', 0.9])],
    ['asked, right one offered', message('b', ['a', 0.5], ['b', 0.4])],
    ['asked, right one offered', message('a', ['a', 0.85], ['b', 0.8])],
    ['asked, right one not offered', message('c', ['a', 0.5], ['b', 0.4])],
    ['asked out of scope', message(null, ['a', 0.5])],
    ['missed', message('a', ['a', 0.3])],
    ['missed', message('a')],
    ['left out of scope', message(null, ['a', 0.3])],
  ] as const)('is told: %s', (consequence, one) => {
    expect(consequenceOf(one, GATE)).toBe(consequence);
  });

  it('is counted, each message once', () => {
    const counts = countConsequences([message('a', ['a', 0.9]), message('a', ['a', 0.3]), message(null)], GATE);
    expect(counts).toMatchObject({ 'accepted rightly': 1, missed: 1, 'left out of scope': 1 });
    expect(Object.values(counts).reduce((sum, count) => sum + count, 0)).toBe(3);
  });

  it('is told of the lines of a run that count, of runs of before by the first intent alone', () => {
    const line = { text: 'x', predicted: 'a', confidence: 0.9, decision: 'accept' as const, place: 1 };
    const rest = { expectedSlots: null, slots: [] };
    const top = [
      { intent: 'a', confidence: 0.9 },
      { intent: 'b', confidence: 0.1 },
    ];
    const messages = gatedMessages([
      { ...line, ...rest, expected: 'a', top },
      { ...line, ...rest, expected: null },
      { ...line, ...rest, expected: undefined, top },
      { ...line, ...rest, expected: 'a', top, taught: true },
    ]);
    expect(messages).toEqual([
      { expected: 'a', top },
      { expected: null, top: top.slice(0, 1) },
    ]);
  });
});

describe('an intent that opens a form that is read back', () => {
  const gate = {
    ...GATE,
    acceptForms: 0.5,
    care: namedAs<IntentCare>({ a: { readBack: true }, c: { readBack: true, accept: 0.95 } }),
  };

  it('is acted on from a level of its kind, or from its own', () => {
    expect(acceptLevel('a', gate)).toBe(0.5);
    expect(acceptLevel('b', gate)).toBe(0.8);
    expect(acceptLevel('c', gate)).toBe(0.95);
    expect(acceptLevel('a', { ...gate, acceptForms: undefined as never })).toBe(0.8);
    expect(acceptLevel('toString', gate)).toBe(0.8);
  });

  it.each([
    ['accepted rightly', message('a', ['a', 0.6])],
    ['asked, right one offered', message('b', ['b', 0.6])],
    ['form opened wrongly', message('b', ['a', 0.6])],
    ['form opened out of scope', message(null, ['a', 0.6])],
    ['asked, right one offered', message('c', ['c', 0.9])],
  ] as const)('is told: %s', (consequence, one) => {
    expect(consequenceOf(one, gate)).toBe(consequence);
    expect(costOf('form opened wrongly', DEFAULT_COSTS)).toBe(DEFAULT_COSTS.wrongForm);
  });

  it('follows from the bot: its form has a read-back, or it has a level', () => {
    const { document } = readBot({
      reedGate: 1,
      name: 'Shop',
      intents: [
        { name: 'order', form: 'order' },
        { name: 'cancel', form: 'cancel', accept: 0.97 },
        { name: 'hours', reply: ['Nine to five.'] },
      ],
      forms: [
        { name: 'order', confirm: ['Is that right?'] },
        { name: 'cancel', done: ['Done.'] },
      ],
      gate: { acceptForms: 0.6 },
    }) as { document: BotDocument };
    const own = gateOf(document);
    expect(own.care).toEqual({ order: { readBack: true }, cancel: { readBack: false, accept: 0.97 } });
    expect(['order', 'cancel', 'hours'].map((intent) => acceptLevel(intent, own))).toEqual([0.6, 0.97, 0.88]);
  });
});

describe('the curve by the accept level', () => {
  it('tells what is accepted, how much of it is right, and what is kept out', () => {
    const curve = thresholdCurve([
      message('a', ['a', 0.9]),
      message('a', ['b', 0.7]),
      message('a'),
      message(null, ['a', 0.5]),
    ]);
    const at = (level: number) => curve.find((point) => point.level === level);
    expect(curve).toHaveLength(51);
    expect(at(0)).toEqual({ level: 0, accepted: 1, right: 1 / 4, keptOut: 0 });
    expect(at(0.5)).toEqual({ level: 0.5, accepted: 2 / 3, right: 1 / 3, keptOut: 0 });
    expect(at(0.6)).toEqual({ level: 0.6, accepted: 2 / 3, right: 1 / 2, keptOut: 1 });
    expect(at(1)).toEqual({ level: 1, accepted: 0, right: null, keptOut: 1 });
  });
});

describe('costs', () => {
  it('are those of the act, of the question, and of the request that was not taken', () => {
    const { wrongAct, question, missed, outsideAct } = DEFAULT_COSTS;
    expect(costOf('accepted rightly', DEFAULT_COSTS)).toBe(0);
    expect(costOf('left out of scope', DEFAULT_COSTS)).toBe(0);
    expect(costOf('accepted wrongly', DEFAULT_COSTS)).toBe(wrongAct);
    expect(costOf('accepted out of scope', DEFAULT_COSTS)).toBe(outsideAct);
    expect(costOf('asked, right one not offered', DEFAULT_COSTS)).toBe(question + missed);
    // (0 + 8 + 3 + 1) / 4
    const four = [
      message('a', ['a', 0.9]),
      message('b', ['a', 0.9]),
      message('a', ['a', 0.3]),
      message('a', ['a', 0.5]),
    ];
    expect(meanCost(four, GATE, DEFAULT_COSTS)).toBe(3);
    expect(meanCost([], GATE, DEFAULT_COSTS)).toBe(0);
  });
});

describe('the table of costs', () => {
  it('is what every pair of levels costs, gated one by one', () => {
    const draw = seeded(11);
    const some = Array.from({ length: 60 }, () => {
      const [first, second] = [draw(), draw()].sort((a, b) => b - a) as [number, number];
      return message(draw() < 0.2 ? null : draw() < 0.6 ? 'a' : 'b', ['a', first], ['b', second]);
    });
    const table = levelTable(
      [...some, message('a')].map((message) => ({ message, weight: 1 })),
      GATE,
      (one, gate) => costOf(consequenceOf(one, gate), DEFAULT_COSTS),
    );
    for (const ask of [0, 7, 20, 50]) {
      for (const accept of [20, 33, 50].filter((level) => level >= ask)) {
        const gate = { accept: LEVELS[accept]!, ask: LEVELS[ask]!, lead: 0.1 };
        expect(table[ask]![accept]! / 61).toBeCloseTo(meanCost([...some, message('a')], gate, DEFAULT_COSTS), 10);
      }
    }
  });
});

describe('the recommended levels', () => {
  /** Messages of a bot whose confidence is what it says: in scope and right as often as it is sure. */
  const truthful = (count: number, seed: number): GatedMessage[] => {
    const draw = seeded(seed);
    return Array.from({ length: count }, () => {
      const confidence = draw();
      return message(draw() < confidence ? 'a' : null, ['a', confidence]);
    });
  };
  const cheapest = (...given: Parameters<typeof recommendGate>): Recommendation => recommendGate(...given).cheapest;
  const costs = { wrongAct: 4, wrongForm: 4, question: 1, missed: 2, outsideAct: 4 };

  it('lie where one act costs as much as the next', () => {
    // Acting costs 4 (1 − p), asking 1, letting be 2 p: the same at p = .75 and at p = .5.
    const { gate, now, then, saving } = cheapest(truthful(6000, 1), GATE, { costs, seed: 1 });
    expect(Math.abs(gate.accept - 0.75)).toBeLessThanOrEqual(0.06);
    expect(Math.abs(gate.ask - 0.5)).toBeLessThanOrEqual(0.06);
    expect(then).toBeLessThan(now);
    expect(saving!.figure).toBeCloseTo(now - then, 10);
    expect(saving!.low).toBeGreaterThan(0);
  });

  it('save on messages that they were not chosen by', () => {
    for (const seed of [1, 2, 3]) {
      const high = { ...GATE, accept: 0.95, ask: 0.2 };
      const { gate } = cheapest(truthful(300, seed), high, { costs, seed });
      const unseen = truthful(1000, seed + 100);
      expect(meanCost(unseen, gate, costs)).toBeLessThan(meanCost(unseen, high, costs));
    }
  });

  it('are those that stand where nothing is cheaper, or nothing is known', () => {
    expect(cheapest([], GATE, { costs, seed: 1 })).toEqual({ gate: GATE, now: 0, then: 0, accepted: 0, saving: null });
    const served = [message('a', ['a', 0.9]), message(null, ['a', 0.1])];
    expect(cheapest(served, GATE, { costs, seed: 1 }).gate).toEqual(GATE);
  });

  it('let forms that are read back open on less, where a mistake in them costs less', () => {
    // Opening a form costs 2 (1 − p), an act 4 (1 − p), asking .8: the same at p = .6 and at p = .8.
    const both = truthful(6000, 7).map(({ expected, top }, at): GatedMessage => {
      if (at % 2 === 0) return { expected, top };
      return { expected: expected && 'form', top: [{ ...top[0]!, intent: 'form' }] };
    });
    const careful = { ...GATE, care: namedAs<IntentCare>({ form: { readBack: true } }) };
    const cheap = { ...costs, question: 0.8, wrongForm: 2 };
    const { gate, then } = cheapest(both, careful, { costs: cheap, seed: 1 });
    expect(Math.abs(gate.acceptForms! - 0.6)).toBeLessThan(0.08);
    expect(Math.abs(gate.accept - 0.8)).toBeLessThan(0.08);
    expect(then).toBeLessThan(meanCost(both, { ...gate, acceptForms: gate.accept }, cheap));
    const fixed = { ...careful, care: namedAs<IntentCare>({ form: { readBack: true, accept: 0.9 } }) };
    expect(cheapest(both, fixed, { costs: cheap, seed: 1 }).gate.acceptForms).toBeUndefined();
  });

  it('leave the lead, and the ask level never above the accept level', () => {
    const dear = { ...costs, question: 50 };
    const { gate } = cheapest(truthful(300, 5), GATE, { costs: dear, seed: 1 });
    expect(gate.lead).toBe(GATE.lead);
    expect(gate.ask).toBeLessThanOrEqual(gate.accept);
  });

  it('may be those by which most is accepted, of all that cost less than those that stand', () => {
    const shy = { ...GATE, accept: 0.97, ask: 0.2 };
    const { cheapest: least, mostAccepted } = recommendGate(truthful(3000, 3), shy, { costs, seed: 1 });
    expect(mostAccepted.accepted).toBeGreaterThan(least.accepted);
    expect(mostAccepted.then).toBeGreaterThanOrEqual(least.then);
    expect(mostAccepted.then).toBeLessThan(mostAccepted.now);
    const unseen = truthful(3000, 4);
    expect(meanCost(unseen, mostAccepted.gate, costs)).toBeLessThan(meanCost(unseen, shy, costs));
    const accepted = countConsequences(unseen, mostAccepted.gate);
    expect((accepted['accepted rightly'] + accepted['accepted out of scope']) / 3000).toBeCloseTo(
      mostAccepted.accepted,
      1,
    );
  });

  it('are the cheapest ones where none that accept more save enough', () => {
    const best = recommendGate(truthful(3000, 3), GATE, { costs, seed: 1 }).cheapest.gate;
    const { cheapest: least, mostAccepted } = recommendGate(truthful(3000, 3), best, { costs, seed: 1 });
    expect(mostAccepted).toEqual(least);
  });
});
