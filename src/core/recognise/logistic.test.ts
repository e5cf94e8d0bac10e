import { goOn } from './check.js';
import { describe, expect, it } from 'vitest';
import { calibrate, fitCalibration } from './calibrate.js';
import type { Gram } from './gram.js';
import { LogisticProblem, softmaxRows } from './logistic.js';

/** Points on a line with a constant, as rows of features. */
function gramOf(rows: readonly (readonly number[])[]): Gram {
  const values = new Float32Array(rows.length ** 2);
  rows.forEach((row, at) =>
    rows.forEach((other, into) => {
      values[at * rows.length + into] = row.reduce((sum, value, index) => sum + value * other[index]!, 0);
    }),
  );
  return { size: rows.length, values };
}

/** Whole numbers that look random, always the same. */
function* pseudoRandom(seed: number): Generator<number> {
  let state = seed;
  for (;;) {
    state = (state * 1103515245 + 12345) % 2147483648;
    yield state / 2147483648;
  }
}

describe('a regression', () => {
  const random = pseudoRandom(7);
  const next = () => random.next().value as number;
  const labels = Int32Array.from({ length: 60 }, (_, index) => index % 3);
  const rows = [...labels].map((label) => [label === 0 ? 1 + next() : next(), label === 1 ? 1 + next() : next(), 1]);
  const gram = gramOf(rows);
  const weights = new Float64Array(60).fill(1);
  const settings = { inversePenalty: 2, maxSteps: 200, tolerance: 1e-6, check: goOn };

  const problem = new LogisticProblem(gram, labels, 3, settings);

  /** The gradient of the penalised loss in the weights themselves, which must vanish at the optimum. */
  function gradient(coefficients: Float32Array, rowWeights: Float64Array): number[] {
    const width = 3;
    const model = Array.from({ length: 3 * width }, (_, index) => {
      const [column, feature] = [Math.floor(index / width), index % width];
      return rows.reduce((sum, row, at) => sum + coefficients[at * 3 + column]! * row[feature]!, 0);
    });
    const scores = new Float64Array(rows.length * 3);
    rows.forEach((row, at) => {
      for (let column = 0; column < 3; column++) {
        scores[at * 3 + column] = row.reduce(
          (sum, value, feature) => sum + value * model[column * width + feature]!,
          0,
        );
      }
    });
    softmaxRows(scores, 3);
    return model.map((weight, index) => {
      const [column, feature] = [Math.floor(index / width), index % width];
      const data = rows.reduce(
        (sum, row, at) =>
          sum + rowWeights[at]! * (scores[at * 3 + column]! - (labels[at] === column ? 1 : 0)) * row[feature]!,
        0,
      );
      return data + weight / settings.inversePenalty;
    });
  }

  it('reaches the point where the gradient of the penalised loss vanishes', () => {
    for (const slope of gradient(problem.fit(weights), weights)) expect(Math.abs(slope)).toBeLessThan(1e-3);
  });

  it('counts rows by their weight', () => {
    const uneven = Float64Array.from(labels, (label) => (label === 2 ? 0.2 : 1));
    for (const slope of gradient(problem.fit(uneven), uneven)) expect(Math.abs(slope)).toBeLessThan(1e-3);
  });

  it('reaches the same point from wherever it begins', () => {
    const far = Float32Array.from({ length: 180 }, (_, index) => Math.sin(index));
    const [cold, warm] = [problem.fit(weights), problem.fit(weights, { coefficients: far, steps: 200 })];
    const modelOf = (coefficients: Float32Array) =>
      [0, 1, 2].flatMap((column) =>
        [0, 1, 2].map((feature) =>
          rows.reduce((sum, row, at) => sum + coefficients[at * 3 + column]! * row[feature]!, 0),
        ),
      );
    modelOf(warm).forEach((weight, at) => expect(weight).toBeCloseTo(modelOf(cold)[at]!, 2));
  });

  it('gives the same coefficients every time, to the last digit', () => {
    expect(problem.fit(weights)).toEqual(new LogisticProblem(gram, labels, 3, settings).fit(weights));
  });

  it('manages a single text of a single class', () => {
    const one = new LogisticProblem(gramOf([[1]]), Int32Array.of(0), 2, settings).fit(Float64Array.of(1));
    expect(one[0]).toBeGreaterThan(one[1]!);
  });
});

describe('fitCalibration', () => {
  const classes = 3;
  const random = pseudoRandom(11);
  const draw = () => random.next().value as number;

  /** Scores whose softmax at `temperature` is the truth. */
  function sample(temperature: number, count = 3000) {
    const scores = new Float64Array(count * classes);
    const labels = new Int32Array(count);
    for (let row = 0; row < count; row++) {
      const own = Array.from({ length: classes }, () => 2 * draw());
      own.forEach((score, column) => (scores[row * classes + column] = score));
      const shares = own.map((score) => Math.exp(score / temperature));
      let left = draw() * shares.reduce((sum, share) => sum + share, 0);
      labels[row] = Math.max(
        0,
        shares.findIndex((share) => (left -= share) <= 0),
      );
    }
    return { scores, labels, weights: new Float64Array(count).fill(1) };
  }

  it.each([0.4, 1, 2])('finds the temperature %f under which the scores tell the truth', (temperature) => {
    const { scores, labels, weights } = sample(temperature);
    const found = fitCalibration(scores, classes, labels, weights);
    expect(found.temperature / temperature).toBeGreaterThan(0.85);
    expect(found.temperature / temperature).toBeLessThan(1.15);
    expect(Math.abs(found.outsideOffset)).toBeLessThan(0.25);
  });

  it('gives probabilities that add up to one', () => {
    const probabilities = calibrate(Float64Array.of(1, 2, 3, 50, -50, 0), 3, { temperature: 0.5, outsideOffset: -1 });
    expect(probabilities[0]! + probabilities[1]! + probabilities[2]!).toBeCloseTo(1, 12);
    expect(probabilities[3]! + probabilities[4]! + probabilities[5]!).toBeCloseTo(1, 12);
  });
});
