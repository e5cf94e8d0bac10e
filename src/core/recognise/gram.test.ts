import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { VECTOR_LENGTH } from '../encode/encoder.js';
import { addSparseProducts, submatrix, Similarities } from './gram.js';

/** A vector of unit length that depends on the text alone. */
function vectorOf(text: string): Float32Array {
  const vector = Float32Array.from({ length: VECTOR_LENGTH }, (_, at) =>
    Math.sin([...text].reduce((sum, character) => sum * 31 + character.charCodeAt(0), 7) * (at + 1)),
  );
  const length = Math.hypot(...vector);
  return vector.map((value) => value / length);
}

const vectorsOf = (texts: readonly string[]) => new Map(texts.map((text) => [text, vectorOf(text)]));

describe('similarities', () => {
  const texts = fc.uniqueArray(fc.string({ minLength: 1, maxLength: 3 }), { minLength: 1, maxLength: 12 });

  it('are the products of the vectors', () => {
    const { size, values } = new Similarities().of(['roses', 'fern', 'moss'], vectorsOf(['roses', 'fern', 'moss']));
    expect(size).toBe(3);
    expect(values[0]).toBeCloseTo(1, 5);
    const wanted = vectorOf('roses').reduce((sum, value, at) => sum + value * vectorOf('moss')[at]!, 0);
    expect(values[2]).toBeCloseTo(wanted, 5);
    expect(values[6]).toBe(values[2]);
  });

  it('are the same to the last digit, whatever was compared before', () => {
    fc.assert(
      fc.property(fc.array(texts, { minLength: 2, maxLength: 4 }), (trainings) => {
        const kept = new Similarities();
        for (const own of trainings)
          expect(kept.of(own, vectorsOf(own))).toEqual(new Similarities().of(own, vectorsOf(own)));
      }),
      { numRuns: 30 },
    );
  });

  it('tell which text has no vector', () => {
    expect(() => new Similarities().of(['lost'], new Map())).toThrow('No sentence vector for "lost".');
  });
});

describe('addSparseProducts', () => {
  const vector = fc
    .dictionary(fc.integer({ min: 0, max: 9 }).map(String), fc.double({ min: -2, max: 2, noNaN: true }))
    .map((weights) => ({
      indices: Int32Array.from(Object.keys(weights), Number),
      weights: Float64Array.from(Object.values(weights)),
    }));

  it('adds the product of each pair of texts', () => {
    fc.assert(
      fc.property(fc.array(vector, { minLength: 1, maxLength: 8 }), (given) => {
        const size = given.length;
        const gram = { size, values: new Float32Array(size ** 2).fill(1) };
        addSparseProducts(gram, given, 10);
        const dense = given.map(({ indices, weights }) => {
          const row = new Array<number>(10).fill(0);
          indices.forEach((term, at) => (row[term] = weights[at]!));
          return row;
        });
        dense.forEach((a, row) =>
          dense.forEach((b, column) =>
            expect(gram.values[row * size + column]).toBeCloseTo(
              1 + a.reduce((sum, value, at) => sum + value * b[at]!, 0),
              4,
            ),
          ),
        );
      }),
    );
  });
});

describe('part', () => {
  it('takes rows and columns in the order asked for', () => {
    const gram = { size: 3, values: Float32Array.of(1, 2, 3, 2, 5, 6, 3, 6, 9) };
    expect(submatrix(gram, [2, 0], [1, 2, 0])).toEqual(Float32Array.of(6, 9, 3, 2, 3, 1));
    expect(submatrix(gram, [1], [1], { scale: 2, constant: 0.5 })).toEqual(Float32Array.of(10.5));
  });
});
