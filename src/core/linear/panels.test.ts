import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PanelMatrices } from './panels.js';
import { product } from './workspace.js';

const numbers = (length: number, most = 6) =>
  fc.array(fc.double({ min: -most, max: most, noNaN: true }), { minLength: length, maxLength: length });

/** Shapes around the edges of rows in fours and columns in eights, with two matrices of the shape. */
const pair = fc.tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 18 })).chain(([rows, classes]) =>
  fc.record({
    rows: fc.constant(rows),
    classes: fc.constant(classes),
    a: numbers(rows * classes),
    b: numbers(rows * classes),
    square: numbers(rows * rows),
    weights: fc.array(fc.double({ min: 0, max: 3, noNaN: true }), { minLength: rows, maxLength: rows }),
  }),
);

function laidOut(rows: number, classes: number, ...matrices: number[][]) {
  const space = new PanelMatrices(rows, classes, matrices.length + 1, PanelMatrices.squareLength(rows));
  const places = matrices.map((matrix) => {
    const at = space.reserve();
    space.write(at, matrix);
    return at;
  });
  return { space, places, into: space.reserve() };
}

describe('matrices in panels', () => {
  it('come back as they were laid out', () => {
    fc.assert(
      fc.property(pair, ({ rows, classes, a }) => {
        const { space, places } = laidOut(rows, classes, a);
        expect(space.read(places[0]!)).toEqual(Float32Array.from(a));
        space.clear(places[0]!);
        expect(space.read(places[0]!)).toEqual(new Float32Array(a.length));
      }),
    );
  });

  it('are multiplied and added element by element', () => {
    fc.assert(
      fc.property(pair, ({ rows, classes, a, b }) => {
        const { space, places, into } = laidOut(rows, classes, a, b);
        const wanted = a.reduce((sum, value, at) => sum + value * b[at]!, 0);
        expect(space.dot(places[0]!, places[1]!)).toBeCloseTo(wanted, 2);
        space.combine(into, { a: places[0]!, scale: -0.5, b: places[1]! });
        space.read(into).forEach((value, at) => expect(value).toBeCloseTo(a[at]! - 0.5 * b[at]!, 4));
      }),
    );
  });

  it('become probabilities row by row, with an offset for the last class', () => {
    fc.assert(
      fc.property(pair, fc.double({ min: -5, max: 5, noNaN: true }), ({ rows, classes, a, weights }, offset) => {
        const { space, places, into } = laidOut(rows, classes, a);
        space.prepare(offset, Float64Array.from(weights));
        const labels = Int32Array.from({ length: rows }, (_, row) => row % classes);
        const loss = space.softmax(places[0]!, into, labels);
        const probabilities = space.read(into);
        let wantedLoss = 0;
        for (let row = 0; row < rows; row++) {
          const shares = a
            .slice(row * classes, (row + 1) * classes)
            .map((score, column) => Math.exp(score + (column === classes - 1 ? offset : 0)));
          const total = shares.reduce((sum, share) => sum + share, 0);
          shares.forEach((share, column) =>
            expect(probabilities[row * classes + column]).toBeCloseTo(share / total, 5),
          );
          wantedLoss -= weights[row]! * Math.log(shares[labels[row]!]! / total);
        }
        expect(loss).toBeCloseTo(wantedLoss, 2);
      }),
    );
  });

  it('stay probabilities when a score towers over the others', () => {
    const { space, places, into } = laidOut(1, 3, [4000, -4000, 0]);
    space.prepare(0, Float64Array.of(1));
    expect(space.softmax(places[0]!, into, Int32Array.of(0))).toBe(0);
    expect(space.read(into)).toEqual(Float32Array.of(1, 0, 0));
  });

  it('give residuals weighed by row', () => {
    fc.assert(
      fc.property(pair, ({ rows, classes, a, b, weights }) => {
        const { space, places } = laidOut(rows, classes, a, b);
        const labels = Int32Array.from({ length: rows }, (_, row) => (row * 5) % classes);
        space.prepare(0, Float64Array.from(weights));
        space.weighResiduals(places[0]!, labels, 0.25, places[1]!);
        space.read(places[0]!).forEach((value, at) => {
          const row = Math.floor(at / classes);
          const residual = a[at]! - (at % classes === labels[row] ? 1 : 0);
          expect(value).toBeCloseTo(weights[row]! * residual + 0.25 * b[at]!, 3);
        });
      }),
    );
  });

  it('are multiplied from the left with a square matrix', () => {
    fc.assert(
      fc.property(pair, ({ rows, classes, a, square }) => {
        const { space, places, into } = laidOut(rows, classes, a);
        space.multiply(space.writeSquare(Float32Array.from(square)), places[0]!, into);
        const wanted = product(Float32Array.from(square), Float32Array.from(a), {
          rows,
          inner: rows,
          columns: classes,
        });
        expect(space.read(into)).toEqual(wanted);
      }),
    );
  });
});
