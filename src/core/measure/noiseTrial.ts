import type { TestLine } from '../formats/testFile.js';
import type { Language } from '../language/language.js';
import type { Noise } from '../noise/noise.js';
import { compareRuns, type IntentChange } from './compare.js';
import { isCounted, isRight, type LineResult } from './evaluate.js';
import type { FigureInterval } from './significance.js';
import { seeded } from './significance.js';

/** What becomes of a test set when its lines are written otherwise. */
export interface NoiseTrial {
  noise: string;
  means: string;
  /** The share of the lines that is right without it and with it. */
  before: number;
  after: number;
  /** After less before, with the bounds between which it may well lie; `null` of no lines. */
  change: FigureInterval | null;
  /** How many lines were accepted wrongly, without it and with it: the bot is sure and wrong. */
  sureAndWrong: { before: number; after: number };
  /** The intents that lose most, the worst first. */
  worst: IntentChange[];
  /** Some lines that are read wrongly with it and were not without. */
  examples: { text: string; expected: string | null; predicted: string | null }[];
}

const WORST = 3;
const EXAMPLES = 3;

/**
 * Lines with noise in them; each has a seed of its own, so that a line is the same whatever stands before it. Slots are
 * left out, for they stand elsewhere.
 * @param strength 0 to 1
 */
export const noisyLines = (
  lines: readonly TestLine[],
  noise: Noise,
  { strength, seed, language }: { strength: number; seed: number; language: Language },
): TestLine[] =>
  lines.map(({ slots: _, ...line }, at) => ({
    ...line,
    text: noise.apply(line.text, strength, seeded(seed * 1_000_003 + at), language),
  }));

const isSureAndWrong = (result: LineResult): boolean =>
  isCounted(result) && result.decision === 'accept' && !isRight(result);

/** @param clean how the lines are read without noise @param noisy the same lines with it, in the same order */
export function noiseTrial(
  { name, means }: Pick<Noise, 'name' | 'means'>,
  clean: readonly LineResult[],
  noisy: readonly LineResult[],
  seed: number,
): NoiseTrial {
  // A noisy line stands for the line that it was made of.
  const same = noisy.map((result, at) => ({
    ...result,
    text: `${at} ${clean[at]!.text}`,
    taught: clean[at]!.taught ?? false,
  }));
  const known = clean.map((result, at) => ({ ...result, text: `${at} ${result.text}` }));
  const { before, after, difference, intents, broken } = compareRuns(known, same, seed);
  const places = broken.map(({ text }) => Number(text.slice(0, text.indexOf(' '))));
  return {
    noise: name,
    means,
    before,
    after,
    change: difference,
    sureAndWrong: { before: clean.filter(isSureAndWrong).length, after: same.filter(isSureAndWrong).length },
    worst: intents
      .filter((intent) => intent.after < intent.before)
      .sort((a, b) => a.after - a.before - (b.after - b.before))
      .slice(0, WORST),
    examples: places.slice(0, EXAMPLES).map((at) => ({
      text: noisy[at]!.text,
      expected: noisy[at]!.expected ?? null,
      predicted: noisy[at]!.predicted,
    })),
  };
}
