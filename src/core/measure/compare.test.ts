import { describe, expect, it } from 'vitest';
import { lineResult as line } from '../../../tests/lineResult.js';
import { compareRuns, comparisonInWords } from './compare.js';
import type { LineResult } from './evaluate.js';

const texts = Array.from({ length: 20 }, (_, at) => `line ${at}`);
/** A run in which the lines before one are read wrongly. */
const run = (wrong: number, more: Partial<LineResult> = {}): LineResult[] =>
  texts.map((text, at) => line(text, at % 2 === 0 ? 'a' : 'b', at < wrong ? 'c' : at % 2 === 0 ? 'a' : 'b', more));

describe('two runs over the same lines', () => {
  it('are compared line by line', () => {
    const comparison = compareRuns(run(10), run(2), 1);
    expect(comparison).toMatchObject({ lines: 20, before: 0.5, after: 0.9 });
    expect(comparison.mended.map(({ text }) => text)).toEqual(texts.slice(2, 10));
    expect(comparison.broken).toEqual([]);
    // 2 / 2⁸
    expect(comparison.chance).toBeCloseTo(2 / 256, 12);
    expect(comparison.difference!.figure).toBeCloseTo(0.4, 12);
    expect(comparison.difference!.low).toBeGreaterThan(0.1);
    expect(comparison.intents).toEqual([
      { intent: 'a', lines: 10, before: 5, after: 9, mended: 4, broken: 0 },
      { intent: 'b', lines: 10, before: 5, after: 9, mended: 4, broken: 0 },
    ]);
    expect(comparisonInWords(comparison)).toMatch(
      /^Of 20 lines 8 were mended and 0 broken: 50\.0 % right before, 90\.0 % now \(\+40\.0 points, .*once in 128 times: the change is real\.$/,
    );
  });

  it('may differ by chance', () => {
    const [before, after] = [run(1), run(0)];
    after[5] = { ...after[5]!, predicted: 'c' };
    const comparison = compareRuns(before, after, 1);
    expect(comparison).toMatchObject({ before: 0.95, after: 0.95, chance: 1 });
    expect([comparison.mended.length, comparison.broken.length]).toEqual([1, 1]);
    expect(comparisonInWords(comparison)).toContain('100 times in 100: it may be chance');
  });

  it('say so where nothing changed', () => {
    expect(comparisonInWords(compareRuns(run(3), run(3), 1))).toMatch(/nothing changed\.$/);
  });

  it('count what is out of scope by whether it was left', () => {
    const left = line('noise', null, 'a', { decision: 'none', confidence: 0.1 });
    const taken = { ...left, decision: 'accept' as const };
    expect(compareRuns([taken], [left], 1)).toMatchObject({
      before: 0,
      after: 1,
      intents: [{ intent: null, mended: 1 }],
    });
  });

  it('leave out what either bot was taught, and lines that say nothing', () => {
    const silent = [line('x', undefined, 'a')];
    expect(compareRuns(silent, silent, 1)).toMatchObject({ lines: 0, difference: null });
    expect(compareRuns(run(3, { taught: true }), run(3), 1).lines).toBe(0);
    expect(comparisonInWords(compareRuns(silent, silent, 1))).toBe('No line counts in both.');
  });

  it('are compared by the lines that both have', () => {
    const fewer = compareRuns(run(1), [...run(1).slice(2), line('new', 'a', 'a')].reverse(), 1);
    expect(fewer).toMatchObject({ lines: 18, apart: 3, before: 1, after: 1 });
    expect(comparisonInWords(fewer)).toMatch(/nothing changed\. 3 that only one of the two has are left out\.$/);
  });

  it('leave out lines whose label was corrected, and pair lines that stand twice', () => {
    const [before, after] = [run(0), run(0)];
    after[3] = line('line 3', 'c', 'b');
    expect(compareRuns(before, after, 1)).toMatchObject({ lines: 19, apart: 2, mended: [], broken: [] });
    const twice = [line('same', 'a', 'b'), line('same', 'a', 'b')];
    expect(compareRuns(twice, [twice[0]!], 1)).toMatchObject({ lines: 1, apart: 1 });
  });
});
