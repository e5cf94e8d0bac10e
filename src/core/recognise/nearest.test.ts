import { describe, expect, it } from 'vitest';
import { VECTOR_LENGTH } from '../encode/encoder.js';
import { keepTexts, nearestRows, openTexts } from './nearest.js';

const TERMS = 6;
const sparseOf = (...weights: number[]) => {
  const indices = weights.flatMap((weight, place) => (weight === 0 ? [] : [place]));
  return { indices: Int32Array.from(indices), weights: Float64Array.from(indices, (place) => weights[place]!) };
};
/** A vector of length one in the plane of two of its numbers. */
const vectorAt = (angle: number) => {
  const vector = new Float32Array(VECTOR_LENGTH);
  [vector[0], vector[5]] = [Math.cos(angle), Math.sin(angle)];
  return vector;
};

const TEXTS = [
  { label: 0, sparse: sparseOf(1, 0, 2, 0, 0, 0), angle: 0 },
  { label: 0, sparse: sparseOf(0, 1, 0, 0, 0, 1), angle: 1 },
  { label: 2, sparse: sparseOf(0, 0, 1, 3, 0, 0), angle: 2 },
];
const KERNEL = { dense: 4, constant: 1 };
const kept = (dense: boolean) => {
  const vectors = new Float32Array(dense ? TEXTS.length * VECTOR_LENGTH : 0);
  if (dense) TEXTS.forEach(({ angle }, at) => vectors.set(vectorAt(angle), at * VECTOR_LENGTH));
  return keepTexts(TEXTS, vectors, TERMS);
};

describe('the nearest text', () => {
  it('of each class is told by cosine and terms together, and nothing is near to a class without texts', () => {
    const find = openTexts(kept(true), 3, KERNEL);
    const nearest = find(sparseOf(0, 2, 1, 0, 0, 0), vectorAt(0.5));
    // First class: 1 + 4 cos .5 + 2 for either of its texts; third: 1 + 4 cos 1.5 + 1.
    expect(nearest[0]).toBeCloseTo(3 + 4 * Math.cos(0.5), 5);
    expect(nearest[1]).toBe(0);
    expect(nearest[2]).toBeCloseTo(2 + 4 * Math.cos(1.5), 5);
  });

  it('is told by terms alone where there are no vectors', () => {
    expect([...openTexts(kept(false), 3, KERNEL)(sparseOf(0, 2, 1, 0, 0, 0), null)]).toEqual([3, 0, 2]);
    expect([...openTexts(kept(true), 3, KERNEL)(sparseOf(0, 2, 1, 0, 0, 0), null)]).toEqual([3, 0, 2]);
  });

  it('is found among the rows that are asked for', () => {
    const gram = { size: 3, values: Float32Array.from([9, 2, 3, 2, 9, 1, 3, 1, 9]) };
    const labels = Int32Array.from([0, 1, 1]);
    expect([...nearestRows(gram, 0, { among: [1, 2], labels, classes: 2 })]).toEqual([0, 3]);
    expect([...nearestRows(gram, 2, { among: [0], labels, classes: 2 })]).toEqual([3, 0]);
  });
});
