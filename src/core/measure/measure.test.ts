import { describe, expect, it } from 'vitest';
import type { Decision } from '../recognise/gate.js';
import {
  accuracy,
  areaUnderRoc,
  calibrationOf,
  classMeasures,
  confusionMatrix,
  together,
  f1Score,
  kappa,
  mean,
  weightedF1,
} from './classification.js';
import { isRight, measure, measureHeldOut, verdict, type LineResult } from './evaluate.js';

const outcomes = [
  { expected: 'a', predicted: 'a' },
  { expected: 'a', predicted: 'a' },
  { expected: 'a', predicted: 'b' },
  { expected: 'b', predicted: 'b' },
  { expected: 'b', predicted: 'c' },
];

describe('classification measures', () => {
  it('count precision, recall and F1 of each intent', () => {
    expect(classMeasures(outcomes, ['a', 'b', 'c'])).toEqual([
      { intent: 'a', support: 3, predicted: 2, correct: 2, precision: 1, recall: 2 / 3, f1: 0.8 },
      { intent: 'b', support: 2, predicted: 2, correct: 1, precision: 0.5, recall: 0.5, f1: 0.5 },
      { intent: 'c', support: 0, predicted: 1, correct: 0, precision: 0, recall: null, f1: 0 },
    ]);
  });

  it('give nothing, not a number, where nothing was there to count', () => {
    expect(accuracy([])).toBeNull();
    expect(mean([null, null])).toBeNull();
    expect(f1Score(0, 0, 0)).toBeNull();
    expect(areaUnderRoc([], [0.5])).toBeNull();
  });

  it('lay the confusions out by row and column', () => {
    expect(confusionMatrix(outcomes, ['a', 'b', 'c']).counts).toEqual([
      [2, 1, 0],
      [0, 1, 1],
      [0, 0, 0],
    ]);
    expect(accuracy(outcomes)).toBe(0.6);
  });

  it('weigh the F1 of each intent by its lines', () => {
    // (3 × 0.8 + 2 × 0.5) / 5; c was not tested.
    expect(weightedF1(classMeasures(outcomes, ['a', 'b', 'c']))).toBeCloseTo(0.68, 12);
    expect(weightedF1([])).toBeNull();
  });

  it('tell how far readings agree beyond chance', () => {
    // The worked example of two raters, 50 cases: 35 agreed, .5 × .6 + .5 × .4 by chance.
    const labels = ['yes', 'no'];
    expect(
      kappa({
        labels,
        counts: [
          [20, 5],
          [10, 15],
        ],
      }),
    ).toBeCloseTo((0.7 - 0.5) / 0.5, 12);
    // .6 agreed; (3 × 2 + 2 × 2 + 0 × 1) / 25 by chance.
    expect(kappa(confusionMatrix(outcomes, ['a', 'b', 'c']))).toBeCloseTo((0.6 - 0.4) / 0.6, 12);
    expect(
      kappa({
        labels,
        counts: [
          [3, 0],
          [0, 0],
        ],
      }),
    ).toBeNull();
    expect(
      kappa({
        labels,
        counts: [
          [0, 0],
          [0, 0],
        ],
      }),
    ).toBeNull();
  });

  it('reckon the area under the ROC curve by all pairs, ties counting half', () => {
    const [positives, negatives] = [
      [0.9, 0.8, 0.4, 0.4],
      [0.4, 0.3, 0.85],
    ];
    let won = 0;
    for (const positive of positives)
      for (const negative of negatives) won += positive > negative ? 1 : positive === negative ? 0.5 : 0;
    expect(areaUnderRoc(positives, negatives)).toBeCloseTo(won / 12, 12);
    expect(areaUnderRoc([1, 2], [0])).toBe(1);
  });

  it('reckon the calibration error as the gap in each stretch, by its share', () => {
    const predictions = [
      { confidence: 0.95, correct: true },
      { confidence: 0.95, correct: false },
      { confidence: 0.15, correct: false },
      { confidence: 1, correct: true },
    ];
    const { error, bins } = calibrationOf(predictions);
    expect(error).toBeCloseTo((3 / 4) * Math.abs(2.9 / 3 - 2 / 3) + (1 / 4) * 0.15, 10);
    expect(bins[9]).toMatchObject({ count: 3, from: 0.9, to: 1 });
  });
});

const result = (
  expected: string | null | undefined,
  predicted: string,
  decision: Decision,
  confidence = 0.7,
  more: Partial<LineResult> = {},
): LineResult => ({
  text: 'x',
  expected,
  predicted,
  confidence,
  decision,
  place: expected === predicted ? 1 : 2,
  expectedSlots: null,
  slots: [],
  ...more,
});

describe('the measures of a test run', () => {
  const slot = (name: string, start: number, end: number) => ({
    slot: name,
    entity: 'e',
    start,
    end,
    text: '',
    value: '',
    why: '',
  });
  const evaluation = measure(
    [
      result('a', 'a', 'accept', 0.9, {
        style: 'plain',
        expectedSlots: [{ slot: 's', start: 0, end: 3 }],
        slots: [slot('s', 0, 3), slot('t', 4, 5)],
      }),
      result('a', 'b', 'accept', 0.8, { style: 'plain' }),
      result('b', 'b', 'ask', 0.5, { style: 'typo', expectedSlots: [{ slot: 's', start: 1, end: 2 }] }),
      result(null, 'a', 'none', 0.1),
      result(null, 'b', 'ask', 0.4),
      result(undefined, 'b', 'accept'),
    ],
    ['a', 'b', 'c'],
  );

  it('count accuracy in scope alone and leave out lines that do not judge', () => {
    expect(evaluation).toMatchObject({ lines: 5, inScope: 3, outOfScope: 2, accuracy: 2 / 3, topThree: 1 });
  });

  it('say what the gate came to', () => {
    expect(evaluation.gate).toEqual({
      accepted: 2,
      asked: 2,
      none: 1,
      acceptedPrecision: 0.5,
      acceptedInScope: 2 / 3,
      outOfScopeRecall: 0.5,
    });
  });

  it('score slots by exact words, over lines that list theirs', () => {
    expect(evaluation.slotF1).toBe((2 * 1) / (2 + 2));
  });

  it('break accuracy down by how messages are written', () => {
    expect(evaluation.styles).toEqual([
      { style: 'plain', lines: 2, accuracy: 0.5 },
      { style: 'typo', lines: 1, accuracy: 1 },
    ]);
  });

  it('break accuracy down by where messages come from', () => {
    const from = (text: string, predicted: string, channel: string) =>
      result('a', predicted, 'accept', 0.9, { text, tags: { channel, source: 'web' } });
    const { tags } = measure([from('x', 'a', 'chat'), from('y', 'b', 'chat'), from('z', 'a', 'voice')], ['a', 'b']);
    expect(tags).toEqual([
      { tag: 'channel', value: 'chat', lines: 2, accuracy: 0.5 },
      { tag: 'channel', value: 'voice', lines: 1, accuracy: 1 },
      { tag: 'source', value: 'web', lines: 3, accuracy: 2 / 3 },
    ]);
  });

  it('put intents that are confused beside each other', () => {
    const counts = [
      [5, 0, 0, 3],
      [0, 5, 0, 0],
      [0, 1, 5, 0],
      [2, 0, 0, 5],
    ];
    const ordered = together({ labels: ['a', 'b', 'c', 'd'], counts });
    expect(ordered.labels).toEqual(['a', 'd', 'b', 'c']);
    expect(ordered.counts).toEqual([
      [5, 3, 0, 0],
      [2, 5, 0, 0],
      [0, 0, 5, 0],
      [0, 0, 1, 5],
    ]);
  });

  it('leave intents without test lines out of the macro figures', () => {
    expect(evaluation.macro.recall).toBe(0.75);
  });

  it.each<[LineResult, string]>([
    [result('a', 'a', 'accept'), 'right'],
    [result('a', 'b', 'accept'), 'wrong and accepted'],
    [result('a', 'b', 'ask'), 'wrong and asked about'],
    [result('a', 'a', 'none'), 'not matched'],
    [result(null, 'a', 'none'), 'right'],
    [result(null, 'a', 'accept'), 'wrong and accepted'],
  ])('give each line its verdict', (line, wanted) => {
    expect(verdict(line)).toBe(wanted);
    expect(isRight(line)).toBe(line.expected === null ? line.decision === 'none' : line.expected === line.predicted);
  });

  it('measure held-out predictions the same way', () => {
    expect(
      measureHeldOut(
        [
          { intent: 'a', predicted: 'a' },
          { intent: 'a', predicted: null },
        ],
        ['a'],
      ),
    ).toMatchObject({ accuracy: 0.5, intents: [{ recall: 0.5, precision: 1 }] });
  });
});
