/** A sentence for a tagger: the features of each word, as hashes. */
export type FeatureRows = readonly (readonly number[])[];

/** A sentence with the label of each word, an index among the labels. */
export interface LabelledRows {
  rows: FeatureRows;
  labels: readonly number[];
}

/** A trained linear-chain conditional random field (Lafferty, McCallum and Pereira, 2001). Plain data. */
export interface ChainModel {
  /** Labels it tells apart. */
  size: number;
  /** Features it knows, rising. */
  features: Uint32Array;
  /** features × labels, row-major. */
  weights: Float32Array;
  /** labels × labels, row-major: from the label before to the label. */
  transitions: Float32Array;
  /** What each label scores at the first word. */
  starts: Float32Array;
}

const ROUNDS = 30;
const RATE = 0.25;
/** Strength of the L2 penalty, per step. */
const PENALTY = 2e-3;

/** A chain whose features are places in its table of weights. */
class Chain {
  readonly #size: number;
  readonly #weights: Float32Array;
  readonly #transitions: Float32Array;
  readonly #starts: Float32Array;

  constructor({ size, weights, transitions, starts }: Omit<ChainModel, 'features'>) {
    this.#size = size;
    this.#weights = weights;
    this.#transitions = transitions;
    this.#starts = starts;
  }

  /** What each label scores at each word by the word's own features: words × labels. */
  scores(rows: readonly (readonly number[])[]): Float64Array {
    const size = this.#size;
    const scores = new Float64Array(rows.length * size);
    rows.forEach((places, row) => {
      for (const place of places)
        for (let label = 0; label < size; label++) scores[row * size + label]! += this.#weights[place * size + label]!;
      if (row === 0) for (let label = 0; label < size; label++) scores[label]! += this.#starts[label]!;
    });
    return scores;
  }

  /**
   * How likely each label is at each word, and each pair of neighbours over all words: forward and backward sums, scaled
   * at each word (Rabiner, 1989).
   * @param pairs labels × labels; what is likely is taken from it, where it is given
   */
  shares(scores: Float64Array, length: number, pairs?: Float64Array): Float64Array {
    const size = this.#size;
    const moves = Float64Array.from(this.#transitions, Math.exp);
    const heights = new Float64Array(length * size);
    for (let row = 0; row < length; row++) {
      let highest = -Infinity;
      for (let label = 0; label < size; label++) highest = Math.max(highest, scores[row * size + label]!);
      for (let label = 0; label < size; label++)
        heights[row * size + label] = Math.exp(scores[row * size + label]! - highest);
    }
    const forward = new Float64Array(length * size);
    const scale = new Float64Array(length);
    for (let row = 0; row < length; row++) {
      let total = 0;
      for (let label = 0; label < size; label++) {
        let sum = row === 0 ? 1 : 0;
        if (row > 0)
          for (let before = 0; before < size; before++)
            sum += forward[(row - 1) * size + before]! * moves[before * size + label]!;
        const height = sum * heights[row * size + label]!;
        forward[row * size + label] = height;
        total += height;
      }
      scale[row] = total;
      for (let label = 0; label < size; label++) forward[row * size + label]! /= total;
    }
    const backward = new Float64Array(length * size).fill(1, Math.max(0, length - 1) * size);
    for (let row = length - 2; row >= 0; row--) {
      for (let label = 0; label < size; label++) {
        let sum = 0;
        for (let after = 0; after < size; after++) {
          const at = (row + 1) * size + after;
          const reached = moves[label * size + after]! * heights[at]! * backward[at]!;
          sum += reached;
          if (pairs) pairs[label * size + after]! -= (forward[row * size + label]! * reached) / scale[row + 1]!;
        }
        backward[row * size + label] = sum / scale[row + 1]!;
      }
    }
    return forward.map((sum, at) => sum * backward[at]!);
  }

  /** The likeliest labels (Viterbi, 1967). */
  best(scores: Float64Array, length: number): number[] {
    const size = this.#size;
    if (length === 0) return [];
    const heights = new Float64Array(length * size);
    const from = new Int32Array(length * size);
    heights.set(scores.subarray(0, size));
    for (let row = 1; row < length; row++) {
      for (let label = 0; label < size; label++) {
        let [highest, place] = [-Infinity, 0];
        for (let before = 0; before < size; before++) {
          const height = heights[(row - 1) * size + before]! + this.#transitions[before * size + label]!;
          if (height > highest) [highest, place] = [height, before];
        }
        heights[row * size + label] = highest + scores[row * size + label]!;
        from[row * size + label] = place;
      }
    }
    const last = heights.subarray((length - 1) * size, length * size);
    let label = last.indexOf(Math.max(...last));
    const labels = [label];
    for (let row = length - 1; row > 0; row--) {
      label = from[row * size + label]!;
      labels.unshift(label);
    }
    return labels;
  }
}

/**
 * Trains a tagger by stochastic gradient steps that shrink as they add up (AdaGrad; Duchi, Hazan and Singer, 2011), the
 * sentences in their order. Deterministic.
 * @param allowed whether a label may follow another; -1 stands for the beginning
 */
export function trainChain(
  sentences: readonly LabelledRows[],
  size: number,
  allowed: (before: number, label: number) => boolean,
): ChainModel {
  const all = new Set<number>();
  for (const { rows } of sentences) for (const row of rows) for (const feature of row) all.add(feature);
  const features = Uint32Array.from(all).sort();
  const place = new Map([...features].map((feature, index) => [feature, index]));
  const indexed = sentences
    .filter(({ rows }) => rows.length > 0)
    .map(({ rows, labels }) => ({ labels, rows: rows.map((row) => row.map((feature) => place.get(feature)!)) }));
  const weights = new Float32Array(features.length * size);
  const transitions = new Float32Array(size * size);
  const starts = new Float32Array(size);
  for (let label = 0; label < size; label++) {
    if (!allowed(-1, label)) starts[label] = NEVER;
    for (let before = 0; before < size; before++)
      if (!allowed(before, label)) transitions[before * size + label] = NEVER;
  }
  const steps = [weights, transitions, starts].map((array) => new Float32Array(array.length).fill(1e-4));
  const learn = (array: Float32Array, squares: Float32Array, at: number, gradient: number): void => {
    if (array[at]! <= NEVER) return;
    const slope = gradient - PENALTY * array[at]!;
    squares[at]! += slope * slope;
    array[at]! += (RATE * slope) / Math.sqrt(squares[at]!);
  };
  const chain = new Chain({ size, weights, transitions, starts });
  for (let round = 0; round < ROUNDS; round++) {
    for (const { rows, labels } of indexed) {
      const scores = chain.scores(rows);
      const between = new Float64Array(size * size);
      const shares = chain.shares(scores, rows.length, between);
      for (let row = 1; row < rows.length; row++) between[labels[row - 1]! * size + labels[row]!]! += 1;
      rows.forEach((places, row) => {
        for (let label = 0; label < size; label++) {
          const gradient = (labels[row] === label ? 1 : 0) - shares[row * size + label]!;
          if (Math.abs(gradient) < 1e-6) continue;
          for (const at of places) learn(weights, steps[0]!, at * size + label, gradient);
          if (row === 0) learn(starts, steps[2]!, label, gradient);
        }
      });
      between.forEach((gradient, at) => learn(transitions, steps[1]!, at, gradient));
    }
  }
  return { size, features, weights, transitions, starts };
}

/** What a step that may not be taken scores. */
const NEVER = -1e6;

/** A trained tagger, ready to label sentences. */
export interface Labeller {
  /** The likeliest labels, and how likely each label is at each word: words × labels. */
  label(rows: FeatureRows): { labels: number[]; shares: Float64Array };
}

export function openChain(model: ChainModel): Labeller {
  const place = new Map([...model.features].map((feature, index) => [feature, index]));
  const chain = new Chain(model);
  return {
    label(rows) {
      const known = rows.map((row) =>
        row.flatMap((feature) => {
          const at = place.get(feature);
          return at === undefined ? [] : [at];
        }),
      );
      const scores = chain.scores(known);
      return { labels: chain.best(scores, rows.length), shares: chain.shares(scores, rows.length) };
    },
  };
}
