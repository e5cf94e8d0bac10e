/** What was expected of a message and what it was read as; `null` stands for out of scope. */
export interface Outcome {
  expected: string | null;
  /** The first intent of the ranking; `null` only where the bot has none. */
  predicted: string | null;
}

/** How well one intent is recognised. Figures are 0..1, or `null` where nothing was there to count. */
export interface ClassMeasure {
  intent: string;
  /** Messages that belong to it. */
  support: number;
  /** Messages read as it. */
  predicted: number;
  correct: number;
  precision: number | null;
  recall: number | null;
  f1: number | null;
}

/** Counts of expected against predicted: `counts[row][column]` messages of `labels[row]` were read as `labels[column]`. */
export interface Confusion {
  labels: string[];
  counts: number[][];
}

const share = (part: number, whole: number): number | null => (whole === 0 ? null : part / whole);

/** Harmonic mean of precision and recall. */
export function f1Score(correct: number, predicted: number, support: number): number | null {
  return share(2 * correct, predicted + support);
}

/**
 * Precision, recall and F1 of each intent. Messages out of scope (`expected: null`) count against the precision of what
 * they are read as.
 */
export function classMeasures(outcomes: readonly Outcome[], intents: readonly string[]): ClassMeasure[] {
  const counts = new Map(intents.map((intent) => [intent, { support: 0, predicted: 0, correct: 0 }]));
  for (const { expected, predicted } of outcomes) {
    const own = expected === null ? undefined : counts.get(expected);
    const taken = predicted === null ? undefined : counts.get(predicted);
    if (own) own.support++;
    if (taken) taken.predicted++;
    if (own && own === taken) own.correct++;
  }
  return intents.map((intent) => {
    const { support, predicted, correct } = counts.get(intent)!;
    return {
      intent,
      support,
      predicted,
      correct,
      precision: share(correct, predicted),
      recall: share(correct, support),
      f1: f1Score(correct, predicted, support),
    };
  });
}

/** Share of messages read as expected; `null` of none. */
export function accuracy(outcomes: readonly Outcome[]): number | null {
  return share(outcomes.filter(({ expected, predicted }) => expected === predicted).length, outcomes.length);
}

/** Mean of the figures there are. */
export function mean(figures: readonly (number | null)[]): number | null {
  const known = figures.filter((figure): figure is number => figure !== null);
  return known.length === 0 ? null : known.reduce((sum, figure) => sum + figure, 0) / known.length;
}

/** How what lies outside the bot is named among the labels of a confusion matrix. */
export const OUT_OF_SCOPE = '(out of scope)';

/**
 * Counts every pair of expected and predicted; what is out of scope has its row and its column where it is a label.
 * @param labels rows and columns, in order
 */
export function confusionMatrix(outcomes: readonly Outcome[], labels: readonly string[]): Confusion {
  const at = new Map(labels.map((label, index) => [label, index]));
  const counts = labels.map(() => labels.map(() => 0));
  for (const { expected, predicted } of outcomes) {
    const row = at.get(expected ?? OUT_OF_SCOPE);
    const column = at.get(predicted ?? OUT_OF_SCOPE);
    if (row !== undefined && column !== undefined) counts[row]![column]!++;
  }
  return { labels: [...labels], counts };
}

/**
 * The same matrix with its labels in an order in which what is confused stands together: from the pair that is confused
 * most on, always that label next which is most confused with the last few.
 */
export function together({ labels, counts }: Confusion): Confusion {
  const LAST = 3;
  const confused = (a: number, b: number): number => (a === b ? 0 : counts[a]![b]! + counts[b]![a]!);
  const left = new Set(labels.keys());
  const order: number[] = [];
  while (left.size > 0) {
    const last = order.slice(-LAST);
    const pull = (label: number) =>
      last.length > 0
        ? last.reduce((sum, one) => sum + confused(one, label), 0)
        : Math.max(...[...left].map((other) => confused(label, other)));
    // Of equals the first, so that labels that nothing pulls stay in their order.
    const next = [...left].reduce((best, label) => (pull(label) > pull(best) ? label : best));
    order.push(next);
    left.delete(next);
  }
  return {
    labels: order.map((at) => labels[at]!),
    counts: order.map((row) => order.map((column) => counts[row]![column]!)),
  };
}

/** The mean of the F1 of all intents, each counting as often as it was tested; `null` where none was. */
export function weightedF1(measures: readonly Pick<ClassMeasure, 'support' | 'f1'>[]): number | null {
  const tested = measures.filter(({ support }) => support > 0);
  const whole = tested.reduce((sum, { support }) => sum + support, 0);
  return whole === 0 ? null : tested.reduce((sum, { support, f1 }) => sum + support * (f1 ?? 0), 0) / whole;
}

/**
 * How far readings agree with what was expected beyond what would come by chance, were labels given as often but at
 * random: 0 no further, 1 wholly (kappa; Cohen, 1960). `null` where chance alone would agree wholly.
 */
export function kappa({ counts }: Confusion): number | null {
  const sum = (numbers: readonly number[]) => numbers.reduce((total, number) => total + number, 0);
  const rows = counts.map(sum);
  const whole = sum(rows);
  const columns = counts.map((_, column) => sum(counts.map((row) => row[column]!)));
  const agreed = sum(counts.map((row, at) => row[at]!)) / whole;
  const byChance = sum(rows.map((row, at) => row * columns[at]!)) / whole ** 2;
  return whole === 0 || byChance === 1 ? null : (agreed - byChance) / (1 - byChance);
}

/**
 * Area under the ROC curve of a score for telling positives from negatives: the chance that a positive scores higher
 * than a negative, ties counting half (Mann and Whitney, 1947).
 */
export function areaUnderRoc(positives: readonly number[], negatives: readonly number[]): number | null {
  if (positives.length === 0 || negatives.length === 0) return null;
  const all = [
    ...positives.map((score) => ({ score, positive: true })),
    ...negatives.map((score) => ({ score, positive: false })),
  ];
  all.sort((a, b) => a.score - b.score);
  let rankSum = 0;
  for (let start = 0; start < all.length;) {
    let end = start;
    while (end < all.length && all[end]!.score === all[start]!.score) end++;
    const rank = (start + 1 + end) / 2;
    for (let index = start; index < end; index++) if (all[index]!.positive) rankSum += rank;
    start = end;
  }
  const count = positives.length;
  return (rankSum - (count * (count + 1)) / 2) / (count * negatives.length);
}

/** One stretch of confidences: how sure the bot was there, and how often right. */
export interface CalibrationBin {
  from: number;
  to: number;
  count: number;
  confidence: number;
  accuracy: number;
}

/** Confidences against what came true, in equal stretches; and their expected calibration error (Guo et al., 2017). */
export function calibrationOf(
  predictions: readonly { confidence: number; correct: boolean }[],
  bins = 10,
): { error: number | null; bins: CalibrationBin[] } {
  const groups = Array.from({ length: bins }, (_, index) =>
    predictions.filter(({ confidence }) => Math.min(bins - 1, Math.floor(confidence * bins)) === index),
  );
  const filled = groups.map((group, index): CalibrationBin => ({
    from: index / bins,
    to: (index + 1) / bins,
    count: group.length,
    confidence: mean(group.map(({ confidence }) => confidence)) ?? 0,
    accuracy: mean(group.map(({ correct }) => (correct ? 1 : 0))) ?? 0,
  }));
  const error = filled.reduce((sum, bin) => sum + bin.count * Math.abs(bin.confidence - bin.accuracy), 0);
  return { error: share(error, predictions.length), bins: filled };
}
