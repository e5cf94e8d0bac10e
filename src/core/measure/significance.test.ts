import { describe, expect, it } from 'vitest';
import { bootstrapMean, mcNemarExact, seeded } from './significance.js';

describe("McNemar's exact test", () => {
  it('adds up the tail of the binomial distribution, on both sides', () => {
    // C(12, 0) + C(12, 1) + C(12, 2) = 79 of 4,096.
    expect(mcNemarExact(10, 2)).toBeCloseTo((2 * 79) / 4096, 12);
    expect(mcNemarExact(2, 10)).toBe(mcNemarExact(10, 2));
    // 1 of 2^6 on either side.
    expect(mcNemarExact(6, 0)).toBeCloseTo(2 / 64, 12);
    expect(mcNemarExact(1, 0)).toBe(1);
  });

  it('sees no difference where nothing changed, or as much either way', () => {
    expect(mcNemarExact(0, 0)).toBe(1);
    expect(mcNemarExact(5, 5)).toBe(1);
  });

  it('goes over into the normal distribution where much changed', () => {
    // (100 − 1) / √1,100 standard deviations: 0.00284 by a table of the normal distribution.
    expect(mcNemarExact(600, 500)).toBeCloseTo(0.00284, 4);
    expect(mcNemarExact(60_000, 59_000)).toBeLessThan(0.01);
  });
});

describe('the bootstrap', () => {
  const lines = Array.from({ length: 400 }, (_, at) => (at % 5 === 0 ? 0 : 1));

  it('gives the bounds that the normal distribution gives for a share', () => {
    const { figure, low, high } = bootstrapMean(lines, 1)!;
    expect(figure).toBe(0.8);
    // 1.96 × √(.8 × .2 / 400) = .0392
    expect(low).toBeCloseTo(0.8 - 0.0392, 2);
    expect(high).toBeCloseTo(0.8 + 0.0392, 2);
  });

  it('draws the same lines from the same seed, and hardly differs by another', () => {
    expect(bootstrapMean(lines, 7)).toEqual(bootstrapMean(lines, 7));
    expect(bootstrapMean(lines, 8)!.low).toBeCloseTo(bootstrapMean(lines, 9)!.low, 2);
  });

  it('is sure of what is the same in every line, and says nothing of none', () => {
    expect(bootstrapMean([1, 1, 1], 3)).toEqual({ figure: 1, low: 1, high: 1 });
    expect(bootstrapMean([], 3)).toBeNull();
  });
});

describe('numbers from a seed', () => {
  it('fill the stretch from 0 to 1 evenly', () => {
    const draw = seeded(42);
    const tenths = Array.from({ length: 10 }, () => 0);
    for (let at = 0; at < 20_000; at++) tenths[Math.floor(draw() * 10)]!++;
    // Each tenth has 2,000 ± 42.
    for (const count of tenths) expect(Math.abs(count - 2000)).toBeLessThan(5 * 42);
  });
});
