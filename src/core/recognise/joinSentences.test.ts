import { describe, expect, it } from 'vitest';
import { joinSentences } from './joinSentences.js';

/** What a sentence says of three intents and of lying outside. */
const part = (...probabilities: number[]) => ({ probabilities: Float64Array.from(probabilities), weight: 1 });
const OUTSIDE = part(0.01, 0.01, 0.02, 0.96);
const SURE = part(0.01, 0.97, 0.01, 0.01);
const whole = Float64Array.from([0.5, 0.2, 0.2, 0.1]);
const firstOf = (joined: Float64Array): number => joined.indexOf(Math.max(...joined));

describe('a message of several sentences', () => {
  it('is what its one request says where the others are a story around it', () => {
    const joined = joinSentences(whole, [OUTSIDE, SURE, OUTSIDE]);
    expect(firstOf(joined)).toBe(1);
    expect(joined[1]).toBeGreaterThan(0.85);
    expect(joined.reduce((sum, one) => sum + one, 0)).toBeCloseTo(1, 12);
  });

  it('is what it says as a whole where more of them speak of the bot, or none is sure', () => {
    const another = part(0.02, 0.02, 0.95, 0.01);
    expect(firstOf(joinSentences(whole, [SURE, another, OUTSIDE]))).toBe(0);
    expect(firstOf(joinSentences(whole, [OUTSIDE, part(0.3, 0.4, 0.2, 0.1), OUTSIDE]))).toBe(0);
    expect(firstOf(joinSentences(whole, [OUTSIDE, OUTSIDE, OUTSIDE]))).toBe(0);
  });

  it('of two is read as a whole: the one says what the other means', () => {
    expect(firstOf(joinSentences(whole, [OUTSIDE, SURE]))).toBe(0);
  });

  it('is the geometric mean by hand: nine tenths the whole, one tenth the sentence that lies within', () => {
    // .5^.9 × .1^.1, .3^.9 × .8^.1 and .2^.9 × .1^.1, as shares of their sum.
    const joined = joinSentences(Float64Array.from([0.5, 0.3, 0.2]), [part(0.1, 0.8, 0.1), part(0, 0, 1)]);
    expect([...joined].map((share) => Number(share.toFixed(3)))).toEqual([0.451, 0.351, 0.198]);
  });
});
