import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { RowTable } from './rowTable.js';

const WIDTH = 8;
const numbers = fc.double({ min: -4, max: 4, noNaN: true });
const vectors = fc.array(fc.array(numbers, { minLength: WIDTH, maxLength: WIDTH }), { minLength: 1, maxLength: 9 });

describe('a table of rows', () => {
  it('gives the product of a vector with every row, or with those asked for', () => {
    fc.assert(
      fc.property(vectors, fc.nat(), (rows, choice) => {
        const table = new RowTable(Float32Array.from(rows.flat()), WIDTH);
        const vector = rows[choice % rows.length]!;
        const wanted = rows.map((row) => row.reduce((sum, value, at) => sum + value * vector[at]!, 0));
        expect(table.size).toBe(rows.length);
        const all = table.products(Float32Array.from(vector));
        wanted.forEach((product, at) => expect(all[at]).toBeCloseTo(product, 3));
        const places = Int32Array.of(rows.length - 1, 0);
        expect([...table.products(Float32Array.from(vector), places)]).toEqual([all.at(-1), all[0]]);
      }),
    );
  });

  it('hands its rows out as they were given', () => {
    const table = new RowTable(
      Float32Array.from({ length: 3 * WIDTH }, (_, at) => at),
      WIDTH,
    );
    expect([...table.row(1)]).toEqual([8, 9, 10, 11, 12, 13, 14, 15]);
    expect(new RowTable(new Float32Array(), WIDTH).products(new Float32Array(WIDTH))).toHaveLength(0);
  });
});
