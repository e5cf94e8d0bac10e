import { isCounted, isRight, type LineResult } from './evaluate.js';
import { bootstrapMean, mcNemarExact, type FigureInterval } from './significance.js';

/** What became of one intent's lines from one run to the next. */
export interface IntentChange {
  /** `null`: out of scope. */
  intent: string | null;
  lines: number;
  before: number;
  after: number;
  mended: number;
  broken: number;
}

/** Two runs over the same lines. */
export interface RunComparison {
  lines: number;
  /** Lines that are right, as a share of all. */
  before: number;
  after: number;
  /** After less before, with the bounds between which it may well lie. */
  difference: FigureInterval | null;
  mended: LineResult[];
  broken: LineResult[];
  /** How likely so uneven a split of what changed is by chance. */
  chance: number;
  intents: IntentChange[];
}

/** Below this a split is taken for more than chance. */
const REAL = 0.05;

/**
 * Compares two runs over the same lines, in the same order.
 * @param seed of the draws that tell how sure the difference is
 * @throws RangeError where the lines are not the same
 */
export function compareRuns(before: readonly LineResult[], after: readonly LineResult[], seed: number): RunComparison {
  if (before.length !== after.length || before.some(({ text }, at) => text !== after[at]!.text))
    throw new RangeError('Two runs can be compared over the same lines alone.');
  const pairs = before
    .map((one, at) => ({ one, other: after[at]! }))
    .filter(({ one, other }) => isCounted(one) && isCounted(other));
  const changes = pairs.map(({ one, other }) => ({ other, was: isRight(one) ? 1 : 0, is: isRight(other) ? 1 : 0 }));
  const mended = changes.filter(({ was, is }) => is > was).map(({ other }) => other);
  const broken = changes.filter(({ was, is }) => is < was).map(({ other }) => other);
  const sum = (of: 'was' | 'is') => changes.reduce((total, change) => total + change[of], 0);
  const intents = [...new Set(changes.map(({ other }) => other.expected ?? null))].map((intent): IntentChange => {
    const own = changes.filter(({ other }) => (other.expected ?? null) === intent);
    return {
      intent,
      lines: own.length,
      before: own.filter(({ was }) => was === 1).length,
      after: own.filter(({ is }) => is === 1).length,
      mended: own.filter(({ was, is }) => is > was).length,
      broken: own.filter(({ was, is }) => is < was).length,
    };
  });
  return {
    lines: pairs.length,
    before: pairs.length === 0 ? 0 : sum('was') / pairs.length,
    after: pairs.length === 0 ? 0 : sum('is') / pairs.length,
    difference: bootstrapMean(
      changes.map(({ was, is }) => is - was),
      seed,
    ),
    mended,
    broken,
    chance: mcNemarExact(mended.length, broken.length),
    intents,
  };
}

const points = (share: number): string => `${share < 0 ? '−' : '+'}${Math.abs(share * 100).toFixed(1)}`;

/** What a comparison says, in words. */
export function comparisonInWords({ lines, before, after, difference, mended, broken, chance }: RunComparison): string {
  if (difference === null) return 'No line counts in both.';
  const [changed, share] = [mended.length + broken.length, (figure: number) => `${(figure * 100).toFixed(1)} %`];
  const head = `Of ${lines} lines ${mended.length} were mended and ${broken.length} broken: ${share(before)} right before, ${share(after)} now`;
  if (changed === 0) return `${head}; nothing changed.`;
  const bounds = `${points(difference.figure)} points, and between ${points(difference.low)} and ${points(difference.high)} on other lines like these`;
  const verdict =
    chance < REAL
      ? `So uneven a split comes by chance ${chance < 0.001 ? 'less than once in 1,000 times' : `once in ${Math.round(1 / chance)} times`}: the change is real.`
      : `A split like this comes by chance ${Math.round(chance * 100)} times in 100: it may be chance, and more lines would tell.`;
  return `${head} (${bounds}). ${verdict}`;
}
