import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { RowTable } from './rowTable.js';

const WIDTH = 8;
const numbers = fc.double({ min: -4, max: 4, noNaN: true });
const vectors = fc.array(fc.array(numbers, { minLength: WIDTH, maxLength: WIDTH }), { minLength: 1, maxLength: 9 });

describe('a table of rows', () => {
  it('gives the product of a vector with every row, whatever it was asked before', () => {
    fc.assert(
      fc.property(vectors, fc.nat(), (rows, choice) => {
        const table = new RowTable(Float32Array.from(rows.flat()), WIDTH);
        const vector = rows[choice % rows.length]!;
        const wanted = rows.map((row) => row.reduce((sum, value, at) => sum + value * vector[at]!, 0));
        expect(table.size).toBe(rows.length);
        for (const before of rows) table.products(Float32Array.from(before));
        const all = table.products(Float32Array.from(vector));
        expect(all).toHaveLength(rows.length);
        wanted.forEach((product, at) => expect(all[at]).toBeCloseTo(product, 3));
      }),
    );
  });

  it('may have no rows', () => {
    expect(new RowTable(new Float32Array(), WIDTH).products(new Float32Array(WIDTH))).toHaveLength(0);
  });
});
