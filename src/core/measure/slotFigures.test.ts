import { describe, expect, it } from 'vitest';
import { lineResult } from '../../../tests/lineResult.js';
import type { LineResult } from './evaluate.js';
import { slotFaults, slotFigures } from './slotFigures.js';

type Expected = NonNullable<LineResult['expectedSlots']>[number];

const TEXT = 'two large roses and a fern';
const found = (slot: string, start: number, end: number, value: string | number, entity = slot) => ({
  slot,
  entity,
  start,
  end,
  text: TEXT.slice(start, end),
  value,
  why: '',
});
const line = (expectedSlots: Expected[] | null, slots: LineResult['slots']): LineResult =>
  lineResult(TEXT, 'a', 'a', { expectedSlots, slots });

const AMOUNT: Expected = { slot: 'amount', entity: 'number', start: 0, end: 3, value: 2 };
const PLANT: Expected = { slot: 'plant', entity: 'plant', start: 4, end: 15, value: 'rose' };

describe('slot figures', () => {
  it('match a value that is told in words, as a sheet tells it', () => {
    const told = (value: string) => line([{ ...AMOUNT, value }], [found('amount', 0, 3, 2, 'number')]);
    expect(slotFigures([told('2')]).byValue).toBe(1);
    expect(slotFigures([told('3')]).byValue).toBe(0);
  });

  it('match by exact words, by some of the words, and by value', () => {
    // Of two expected one is found exactly, the other in part and with its value, and a third ought not to be.
    const figures = slotFigures([
      line(
        [AMOUNT, PLANT],
        [found('amount', 0, 3, 2, 'number'), found('plant', 10, 15, 'rose'), found('plant', 22, 26, 'fern')],
      ),
    ]);
    const f1 = (correct: number) => (2 * correct) / (2 + 3);
    expect(figures).toEqual({
      exact: f1(1),
      partial: f1(2),
      byValue: f1(2),
      entityExact: f1(1),
      entityPartial: f1(2),
    });
  });

  it('take an entity that went to another slot for found, and the slot not', () => {
    const figures = slotFigures([
      line([{ slot: 'from', entity: 'date', start: 0, end: 3 }], [found('to', 0, 3, 'x', 'date')]),
    ]);
    expect(figures).toMatchObject({ exact: 0, partial: 0, entityExact: 1, entityPartial: 1 });
  });

  it('pair each found one once, and count by value only lines that tell their values', () => {
    const twice = line([PLANT], [found('plant', 4, 15, 'rose'), found('plant', 5, 15, 'rose')]);
    expect(slotFigures([twice]).partial).toBeCloseTo(2 / 3, 12);
    const { value: _, ...untold } = PLANT;
    expect(slotFigures([line([untold], [found('plant', 4, 15, 'rose')])])).toMatchObject({ exact: 1, byValue: null });
    // Lines without slots tell no value either.
    expect(slotFigures([line([], [found('plant', 4, 15, 'rose')])]).byValue).toBeNull();
  });

  it('are none where no line lists its slots', () => {
    expect(slotFigures([line(null, [found('plant', 4, 15, 'rose')])])).toEqual({
      exact: null,
      partial: null,
      byValue: null,
      entityExact: null,
      entityPartial: null,
    });
  });
});

describe('what is not as it ought to be', () => {
  it('is what is missing and what is found besides', () => {
    expect(slotFaults(line([AMOUNT, PLANT], [found('amount', 0, 3, 2), found('plant', 22, 26, 'fern')]))).toEqual({
      missing: [{ slot: 'plant', text: 'large roses' }],
      extra: [{ slot: 'plant', text: 'fern' }],
    });
    expect(slotFaults(line([AMOUNT], [found('amount', 0, 3, 2)]))).toBeNull();
    expect(slotFaults(line(null, [found('amount', 0, 3, 2)]))).toBeNull();
    expect(slotFaults(line([], [found('amount', 0, 3, 2)]))!.extra).toHaveLength(1);
  });
});
