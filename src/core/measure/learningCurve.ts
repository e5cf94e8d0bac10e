import type { BotDocument } from '../bot/document.js';
import { isCounted, isRight, type LineResult } from './evaluate.js';
import { bootstrapMean, type FigureInterval } from './significance.js';

/** The shares of the utterances that a bot is taught with in turn. */
export const SHARES: readonly number[] = [0.25, 0.5, 0.75, 1];

/** How the bot does with a share of its utterances. */
export interface CurvePoint {
  share: number;
  /** Utterances an intent, on the mean. */
  utterances: number;
  accuracy: FigureInterval | null;
}

/** What more utterances have done for an intent so far. */
export interface IntentCurve {
  intent: string;
  utterances: number;
  lines: number;
  /** The recall at each share. */
  recalls: (number | null)[];
  /** What the last half of its utterances has given: the recall of all less that of half of them. */
  gained: number;
  /** Right lines of 100 that this intent might still win. */
  lacking: number;
}

/** Whether more utterances would help, and which intent first. */
export interface LearningCurve {
  points: CurvePoint[];
  /** The accuracy with half as many utterances again, if the curve goes on as it went; `null` where that is not to be told. */
  forecast: { utterances: number; accuracy: number } | null;
  /** The intents that more utterances would help most, the first first. */
  intents: IntentCurve[];
}

/** What is read with one share. */
export interface CurveReading {
  share: number;
  /** Utterances that the bot had of all its intents. */
  taught: number;
  lines: readonly LineResult[];
}

/** Half as many again. */
const MORE = 1.5;
const HALF = 0.5;

/**
 * The power law `error = a · n^−b` through the points, by least squares of the logarithms, as errors of classifiers
 * mostly fall (Hestness et al., 2017). `null` of fewer than three points, or where the error does not fall.
 */
export function powerLaw(points: readonly { n: number; error: number }[]): ((n: number) => number) | null {
  const logs = points
    .filter(({ n, error }) => n > 0 && error > 0)
    .map(({ n, error }) => [Math.log(n), Math.log(error)]);
  if (logs.length < 3) return null;
  const meanOf = (at: 0 | 1) => logs.reduce((sum, pair) => sum + pair[at]!, 0) / logs.length;
  const [x, y] = [meanOf(0), meanOf(1)];
  const spread = logs.reduce((sum, pair) => sum + (pair[0]! - x) ** 2, 0);
  if (spread === 0) return null;
  const slope = logs.reduce((sum, pair) => sum + (pair[0]! - x) * (pair[1]! - y), 0) / spread;
  if (slope >= 0) return null;
  return (n) => Math.exp(y + slope * (Math.log(n) - x));
}

const shareRight = (lines: readonly LineResult[]): number | null =>
  lines.length === 0 ? null : lines.filter(isRight).length / lines.length;

/**
 * Puts together what a bot read with shares of its utterances.
 * @param readings of {@link SHARES}, several of each
 * @param seed of the draws that tell how sure the figures are
 */
export function learningCurve(
  { intents }: BotDocument,
  readings: readonly CurveReading[],
  seed: number,
): LearningCurve {
  const of = (share: number) => readings.filter((reading) => reading.share === share);
  const linesOf = (share: number) =>
    of(share)
      .flatMap(({ lines }) => lines)
      .filter((line) => isCounted(line) && line.expected !== null);
  const points = SHARES.map((share): CurvePoint => {
    const taught = of(share);
    const utterances = taught.reduce((sum, reading) => sum + reading.taught, 0) / Math.max(1, taught.length);
    return {
      share,
      utterances: utterances / Math.max(1, intents.length),
      accuracy: bootstrapMean(
        linesOf(share).map((line) => (isRight(line) ? 1 : 0)),
        seed,
      ),
    };
  });
  const falls = powerLaw(
    points.flatMap(({ utterances, accuracy }) => (accuracy ? [{ n: utterances, error: 1 - accuracy.figure }] : [])),
  );
  const more = points.at(-1)!.utterances * MORE;
  const all = linesOf(1);
  const half = SHARES.indexOf(HALF);
  const curves = intents.map(({ name, utterances }): IntentCurve => {
    const recalls = SHARES.map((share) => shareRight(linesOf(share).filter(({ expected }) => expected === name)));
    const own = all.filter(({ expected }) => expected === name);
    return {
      intent: name,
      utterances: utterances.length,
      lines: own.length,
      recalls,
      gained: (recalls.at(-1) ?? 0) - (recalls[half] ?? 0),
      lacking: all.length === 0 ? 0 : ((own.length - own.filter(isRight).length) / all.length) * 100,
    };
  });
  // What it would win, if the next half gives as much as the last, and no more than it lacks.
  const worth = ({ gained, lacking, lines }: IntentCurve) =>
    Math.min(lacking, Math.max(0, gained) * (all.length === 0 ? 0 : (lines / all.length) * 100));
  return {
    points,
    forecast: falls ? { utterances: more, accuracy: 1 - falls(more) } : null,
    intents: curves.sort((a, b) => worth(b) - worth(a) || b.lacking - a.lacking),
  };
}
