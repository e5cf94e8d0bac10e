import type { BotDocument } from '../bot/document.js';
import { classMeasures } from './classification.js';
import { isCounted, isRight, type LineResult } from './evaluate.js';
import { bootstrapMean, type FigureInterval } from './significance.js';

/** How an intent fares, over all repeats. */
export interface CrossValidatedIntent {
  intent: string;
  utterances: number;
  precision: number | null;
  recall: number | null;
  f1: number | null;
  /** The recall of its worst and its best repeat. */
  lowest: number | null;
  highest: number | null;
}

/** An utterance that is read as another intent when the bot is not taught it. */
export interface HardUtterance {
  text: string;
  intent: string;
  /** As what it is read mostly. */
  predicted: string | null;
  /** In how many repeats it is read wrongly. */
  wrong: number;
}

/** What a bot makes of its utterances, each read by models that were not taught it. */
export interface CrossValidation {
  folds: number;
  repeats: number;
  utterances: number;
  /** Utterances that stand more than once, and so are in no figure. */
  doubled: number;
  /** The bounds are those of other utterances like these. */
  accuracy: FigureInterval | null;
  /** The accuracy of the worst and of the best repeat: what the division into folds alone does. */
  lowest: number;
  highest: number;
  intents: CrossValidatedIntent[];
  /** Which intents are taken for which, the most frequent first; a share of the utterances of the first. */
  confused: { intent: string; predicted: string; count: number; share: number }[];
  hardest: HardUtterance[];
}

const MOST_PAIRS = 12;
const MOST_HARD = 40;

function most<Item>(items: readonly Item[]): Item {
  const counts = new Map<Item, number>();
  for (const item of items) counts.set(item, (counts.get(item) ?? 0) + 1);
  return [...counts].reduce((best, one) => (one[1] > best[1] ? one : best))[0];
}

const shareRight = (lines: readonly LineResult[]): number =>
  lines.length === 0 ? 0 : lines.filter(isRight).length / lines.length;

/** Intents that are taken for another, counted over all repeats. */
function confusedPairs(lines: readonly LineResult[]): CrossValidation['confused'] {
  const pairs = new Map<string, { intent: string; predicted: string; count: number }>();
  const sizes = new Map<string, number>();
  for (const { expected, predicted } of lines) {
    sizes.set(expected!, (sizes.get(expected!) ?? 0) + 1);
    if (predicted === null || predicted === expected) continue;
    const key = JSON.stringify([expected, predicted]);
    const pair = pairs.get(key) ?? { intent: expected!, predicted, count: 0 };
    pair.count++;
    pairs.set(key, pair);
  }
  return [...pairs.values()]
    .sort((a, b) => b.count - a.count)
    .slice(0, MOST_PAIRS)
    .map((pair) => ({ ...pair, share: pair.count / sizes.get(pair.intent)! }));
}

/**
 * Puts together what the repeats of a stratified cross-validation gave. The interval of the accuracy draws utterances
 * anew, each with its share of right readings over the repeats, for these are not independent of each other.
 * @param repeats the lines of all folds of each repeat
 */
export function crossValidation(
  { intents }: BotDocument,
  repeats: readonly (readonly LineResult[])[],
  { folds, seed }: { folds: number; seed: number },
): CrossValidation {
  const counted = repeats.map((lines) => lines.filter(isCounted));
  const all = counted.flat();
  const readings = new Map<string, LineResult[]>();
  for (const line of all) {
    const key = JSON.stringify([line.expected, line.text]);
    readings.set(key, [...(readings.get(key) ?? []), line]);
  }
  const outcomes = all.map(({ expected, predicted }) => ({ expected: expected!, predicted }));
  const names = intents.map(({ name }) => name);
  const byRepeat = counted.map(shareRight);
  const recalls = counted.map(
    (lines) => new Map(names.map((name) => [name, lines.filter(({ expected }) => expected === name)])),
  );
  const hardest = [...readings.values()]
    .map((lines): HardUtterance => {
      const wrong = lines.filter((line) => !isRight(line));
      const predicted = wrong.length > 0 ? most(wrong.map((line) => line.predicted)) : null;
      return { text: lines[0]!.text, intent: lines[0]!.expected!, predicted, wrong: wrong.length };
    })
    .filter(({ wrong }) => wrong > 0)
    .sort((a, b) => b.wrong - a.wrong);
  return {
    folds,
    repeats: repeats.length,
    utterances: readings.size,
    doubled: (repeats[0]?.length ?? 0) - (counted[0]?.length ?? 0),
    accuracy: bootstrapMean([...readings.values()].map(shareRight), seed),
    lowest: Math.min(...byRepeat),
    highest: Math.max(...byRepeat),
    intents: classMeasures(outcomes, names).map(({ intent, precision, recall, f1 }, at) => {
      const own = recalls.flatMap((of) => of.get(intent) ?? []);
      const shares = recalls.map((of) => of.get(intent)!).filter((lines) => lines.length > 0);
      return {
        intent,
        utterances: intents[at]?.utterances.length ?? own.length,
        precision,
        recall,
        f1,
        lowest: shares.length > 0 ? Math.min(...shares.map(shareRight)) : null,
        highest: shares.length > 0 ? Math.max(...shares.map(shareRight)) : null,
      };
    }),
    confused: confusedPairs(all),
    hardest: hardest.slice(0, MOST_HARD),
  };
}
