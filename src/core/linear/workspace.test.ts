import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import wabt from 'wabt';
import { describe, expect, it } from 'vitest';
import { KERNEL_BASE64 } from './kernel.js';
import { paddedColumns, paddedRows, Workspace } from './workspace.js';

describe('the kernel', () => {
  it('is the assembled form of its source', async () => {
    const toolkit = await wabt();
    const module = toolkit.parseWat('kernel.wat', readFileSync('src/core/linear/kernel.wat', 'utf8'), { simd: true });
    module.resolveNames();
    module.validate();
    expect(Buffer.from(module.toBinary({}).buffer).toString('base64')).toBe(KERNEL_BASE64);
  });

  const numbers = fc.double({ min: -4, max: 4, noNaN: true });
  const problem = fc
    .tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 7 }), fc.integer({ min: 1, max: 19 }))
    .chain(([rows, inner, columns]) =>
      fc.record({
        rows: fc.constant(rows),
        inner: fc.constant(inner),
        columns: fc.constant(columns),
        left: fc.array(numbers, { minLength: rows * inner, maxLength: rows * inner }),
        right: fc.array(numbers, { minLength: inner * columns, maxLength: inner * columns }),
        rectify: fc.boolean(),
      }),
    );

  it('multiplies as the definition says, whatever the shape', () => {
    fc.assert(
      fc.property(problem, ({ rows, inner, columns, left, right, rectify }) => {
        const wide = paddedColumns(columns);
        const space = new Workspace(paddedRows(rows) * (inner + wide) + inner * wide + wide + 64);
        const leftAt = space.reserve(paddedRows(rows) * inner);
        space.view(leftAt, rows * inner).set(left);
        const panels = space.reservePanels(inner, columns);
        space.fillPanels(panels, right, { columns });
        const bias = space.reserve(wide);
        space.view(bias, wide).fill(0.5);
        const result = space.reserve(paddedRows(rows) * wide);
        space.multiply({ left: leftAt, rows, panels, bias, result, rectify });
        const product = space.view(result, rows * wide);
        for (let row = 0; row < rows; row++) {
          for (let column = 0; column < columns; column++) {
            let wanted = 0.5;
            for (let at = 0; at < inner; at++) wanted += left[row * inner + at]! * right[at * columns + column]!;
            expect(product[row * wide + column]).toBeCloseTo(rectify ? Math.max(0, wanted) : wanted, 3);
          }
        }
      }),
    );
  });
});
