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

/** Two runs, by the lines that both have. */
export interface RunComparison {
  lines: number;
  /** Lines that only one of the runs has, or of which something else was expected then. */
  apart: number;
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

/** Lines of two runs that say the same and expect the same; of those that stand several times the first with the first. */
function pairLines(
  before: readonly LineResult[],
  after: readonly LineResult[],
): { one: LineResult; other: LineResult }[] {
  const keyOf = ({ text, expected = null }: LineResult) => JSON.stringify([text, expected]);
  const waiting = new Map<string, LineResult[]>();
  for (const one of before.toReversed().filter(isCounted)) {
    const same = waiting.get(keyOf(one));
    if (same) same.push(one);
    else waiting.set(keyOf(one), [one]);
  }
  return after.filter(isCounted).flatMap((other) => {
    const one = waiting.get(keyOf(other))?.pop();
    return one ? [{ one, other }] : [];
  });
}

/**
 * Compares two runs, by the lines that count in both.
 * @param seed of the draws that tell how sure the difference is
 */
export function compareRuns(before: readonly LineResult[], after: readonly LineResult[], seed: number): RunComparison {
  const pairs = pairLines(before, after);
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
    apart: before.filter(isCounted).length + after.filter(isCounted).length - 2 * pairs.length,
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

/** What a change did to a test set, in short. */
export const comparisonInShort = ({ mended, broken, before, after }: RunComparison): string =>
  `${mended.length} mended, ${broken.length} broken: ${(before * 100).toFixed(1)} % right before, ${(after * 100).toFixed(1)} % now.`;

/** What a comparison says, in words. */
export function comparisonInWords(comparison: RunComparison): string {
  const { lines, apart, before, after, difference, mended, broken, chance } = comparison;
  if (difference === null) return 'No line counts in both.';
  const [changed, share] = [mended.length + broken.length, (figure: number) => `${(figure * 100).toFixed(1)} %`];
  const head = `Of ${lines} ${lines === 1 ? 'line' : 'lines'} ${mended.length} ${mended.length === 1 ? 'was' : 'were'} mended and ${broken.length} broken: ${share(before)} right before, ${share(after)} now`;
  const others = apart === 0 ? '' : ` ${apart} that only one of the two has ${apart === 1 ? 'is' : 'are'} left out.`;
  if (changed === 0) return `${head}; nothing changed.${others}`;
  const bounds = `${points(difference.figure)} points, and between ${points(difference.low)} and ${points(difference.high)} on other lines like these`;
  const verdict =
    chance < REAL
      ? `So uneven a split comes by chance ${chance < 0.001 ? 'less than once in 1,000 times' : `once in ${Math.round(1 / chance)} times`}: the change is real.`
      : `A split like this comes by chance ${Math.round(chance * 100)} times in 100: it may be chance, and more lines would tell.`;
  return `${head} (${bounds}). ${verdict}${others}`;
}
