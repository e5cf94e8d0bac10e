import { describe, expect, it } from 'vitest';
import { lineResult as line } from '../../../tests/lineResult.js';
import { teaShop } from '../../../tests/teaShop.js';
import type { BotDocument } from '../bot/document.js';
import { crossValidation } from './crossValidation.js';
import { learningCurve, powerLaw, SHARES } from './learningCurve.js';

const bot = (...names: string[]): BotDocument => ({
  ...teaShop(),
  intents: names.map((name) => ({
    name,
    utterances: ['one', 'two'].map((text) => ({ id: `${name}${text}`, text, marks: [] })),
  })),
});

describe('a cross-validation', () => {
  const first = [line('1', 'a', 'a'), line('2', 'a', 'b'), line('3', 'b', 'b'), line('4', 'b', 'b')];
  const second = [line('1', 'a', 'a'), line('2', 'a', 'b'), line('3', 'b', 'a'), line('4', 'b', 'b')];
  const result = crossValidation(bot('a', 'b'), [first, second], { folds: 2, seed: 1 });

  it('tells the accuracy over all repeats, and of the worst and the best', () => {
    // 1 + 0 + ½ + 1 of four.
    expect(result.accuracy!.figure).toBeCloseTo(2.5 / 4, 12);
    expect(result.accuracy!.low).toBeLessThan(result.accuracy!.figure);
    expect(result).toMatchObject({ lowest: 0.5, highest: 0.75, utterances: 4, repeats: 2, doubled: 0 });
  });

  it('tells of each intent how it fares, with the bounds of its repeats', () => {
    const [a, b] = result.intents;
    expect(a).toMatchObject({ intent: 'a', recall: 0.5, lowest: 0.5, highest: 0.5 });
    expect(a!.precision).toBeCloseTo(2 / 3, 12);
    expect(b).toMatchObject({ recall: 0.75, lowest: 0.5, highest: 1 });
  });

  it('names the pairs that are taken for each other, and what is hardest', () => {
    expect(result.confused).toEqual([
      { intent: 'a', predicted: 'b', count: 2, share: 0.5 },
      { intent: 'b', predicted: 'a', count: 1, share: 0.25 },
    ]);
    expect(result.hardest).toEqual([
      { text: '2', intent: 'a', predicted: 'b', wrong: 2 },
      { text: '3', intent: 'b', predicted: 'a', wrong: 1 },
    ]);
  });

  it('leaves out lines of which another like them was taught', () => {
    const doubled = [line('1', 'a', 'a', { taught: true }), line('2', 'a', 'b')];
    expect(crossValidation(bot('a', 'b'), [doubled], { folds: 2, seed: 1 })).toMatchObject({
      doubled: 1,
      utterances: 1,
      accuracy: { figure: 0 },
    });
  });
});

describe('the power law through errors', () => {
  it('finds the law that errors follow', () => {
    const law = (n: number) => 0.8 * n ** -0.5;
    const found = powerLaw([2, 4, 8, 16].map((n) => ({ n, error: law(n) })))!;
    expect(found(32)).toBeCloseTo(law(32), 12);
  });

  it('is not told of few points, or of errors that do not fall', () => {
    expect(powerLaw([{ n: 2, error: 0.5 }])).toBeNull();
    expect(powerLaw([2, 4, 8].map((n) => ({ n, error: 0.1 * n })))).toBeNull();
    expect(powerLaw([2, 4, 8].map((n) => ({ n, error: 0 })))).toBeNull();
    expect(powerLaw([2, 2, 2].map((n) => ({ n, error: 0.3 })))).toBeNull();
  });
});

describe('a learning curve', () => {
  const right = (text: string, intent: string) => line(text, intent, intent);
  const wrong = (text: string, intent: string) => line(text, intent, 'other');
  /** Of eight lines of each intent, as many are right at each share. */
  const readings = (rights: Record<string, readonly number[]>) =>
    SHARES.map((share, at) => ({
      share,
      taught: 20 * share,
      lines: Object.entries(rights).flatMap(([intent, counts]) =>
        Array.from({ length: 8 }, (_, place) => (place < counts[at]! ? right : wrong)(`${intent} ${place}`, intent)),
      ),
    }));

  it('tells the accuracy of each share, and what more would bring', () => {
    const { points, forecast } = learningCurve(bot('a', 'b'), readings({ a: [2, 4, 5, 6], b: [4, 4, 5, 6] }), 1);
    expect(points.map(({ accuracy }) => accuracy!.figure)).toEqual([0.375, 0.5, 0.625, 0.75]);
    expect(points.map(({ utterances }) => utterances)).toEqual([2.5, 5, 7.5, 10]);
    expect(forecast!.utterances).toBe(15);
    expect(forecast!.accuracy).toBeGreaterThan(0.75);
    expect(forecast!.accuracy).toBeLessThan(1);
  });

  it('puts the intent first that more utterances would help most', () => {
    const rights = { risen: [1, 2, 4, 6], poor: [3, 3, 3, 3], done: [8, 8, 8, 8] };
    const { intents } = learningCurve(bot('done', 'poor', 'risen'), readings(rights), 1);
    expect(intents.map(({ intent }) => intent)).toEqual(['risen', 'poor', 'done']);
    expect(intents[0]).toMatchObject({ recalls: [0.125, 0.25, 0.5, 0.75], gained: 0.5, lines: 8 });
  });

  it('foretells nothing of a curve that does not rise', () => {
    expect(learningCurve(bot('a'), readings({ a: [6, 6, 5, 4] }), 1).forecast).toBeNull();
  });
});
