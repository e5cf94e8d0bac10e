import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { TermTable, type TermPlaces } from './termTable.js';

const TERMS = 6;
const weight = fc.double({ min: 0, max: 2, noNaN: true });
const texts = fc.array(fc.array(weight, { minLength: TERMS, maxLength: TERMS }), { minLength: 1, maxLength: 7 });

/** Of each term those texts in which it weighs more than one, so that some have it and some do not. */
function placesOf(rows: readonly (readonly number[])[]): TermPlaces {
  const byTerm = Array.from({ length: TERMS }, (_, term) =>
    rows.flatMap((row, text) => (row[term]! > 1 ? [{ text, weight: row[term]! }] : [])),
  );
  const starts = Int32Array.of(0, ...byTerm.map((_, term) => byTerm.slice(0, term + 1).flat().length));
  const all = byTerm.flat();
  return {
    starts,
    holders: Int32Array.from(all, ({ text }) => text),
    weights: Float32Array.from(all, (own) => own.weight),
  };
}

describe('a table of terms', () => {
  it('gives the product of the terms of a text with those of each text kept, whatever it was asked before', () => {
    fc.assert(
      fc.property(texts, fc.uniqueArray(fc.nat({ max: TERMS - 1 })), (rows, terms) => {
        const table = new TermTable(placesOf(rows), rows.length);
        table.products(Int32Array.of(0, 1), Float64Array.of(3, 3));
        const indices = Int32Array.from(terms).sort();
        const sums = table.products(
          indices,
          Float64Array.from(indices, (term) => 1 + term),
        );
        expect(sums).toHaveLength(rows.length);
        rows.forEach((row, text) => {
          const wanted = terms.reduce((sum, term) => sum + (row[term]! > 1 ? (1 + term) * row[term]! : 0), 0);
          expect(sums[text]).toBeCloseTo(wanted, 3);
        });
      }),
    );
  });
});
