import { VIEW_LENGTH } from '../../encode/words.js';

/** A sentence for a tagger: the features of each word, as hashes. */
export type FeatureRows = readonly (readonly number[])[];

/** How the encoder sees each word of a sentence; `null` where it does not. */
export type Views = readonly (Float32Array | null)[];

/** A sentence with the label of each word, an index among the labels. */
export interface LabelledRows {
  rows: FeatureRows;
  views: Views;
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
  /** What each number of a word's view counts for each label: {@link VIEW_LENGTH} × labels, row-major. */
  viewWeights: Float32Array;
  /** labels × labels, row-major: from the label before to the label. */
  transitions: Float32Array;
  /** What each label scores at the first word. */
  starts: Float32Array;
}

/** How much a word's view counts beside its features, each of which is one. */
export const VIEW_SCALE = 2;
const ROUNDS = 15;
const RATE = 0.08;
/** Strength of the L2 penalty, per step. */
const PENALTY = 2e-3;
/** What a step that may not be taken scores. */
const NEVER = -1e6;
/** A label that is as likely as it should be, to within this, teaches nothing more. */
const LEARNED = 1e-3;

/** How likely labels are in one sentence. */
interface Shares {
  /** Of each label at each word: words × labels. */
  words: Float64Array;
  /** Of each label after each other, over all words: labels × labels. */
  pairs: Float64Array;
}

/** A chain whose features are places in its table of weights. */
class Chain {
  readonly #size: number;
  readonly #weights: Float32Array;
  readonly #viewWeights: Float32Array;
  readonly #transitions: Float32Array;
  readonly #starts: Float32Array;

  constructor({ size, weights, viewWeights, transitions, starts }: Omit<ChainModel, 'features'>) {
    this.#size = size;
    this.#weights = weights;
    this.#viewWeights = viewWeights;
    this.#transitions = transitions;
    this.#starts = starts;
  }

  /** What each label scores at each word by the word's own features and its view: words × labels. */
  scores(rows: readonly Int32Array[], views: Views): Float64Array {
    const size = this.#size;
    const scores = new Float64Array(rows.length * size);
    for (let row = 0; row < rows.length; row++) {
      const places = rows[row]!;
      for (let at = 0; at < places.length; at++) {
        const from = places[at]! * size;
        for (let label = 0; label < size; label++) scores[row * size + label]! += this.#weights[from + label]!;
      }
      const view = views[row];
      for (let at = 0; view && at < view.length; at++) {
        const share = VIEW_SCALE * view[at]!;
        for (let label = 0; label < size; label++)
          scores[row * size + label]! += share * this.#viewWeights[at * size + label]!;
      }
    }
    if (rows.length > 0) for (let label = 0; label < size; label++) scores[label]! += this.#starts[label]!;
    return scores;
  }

  /** How likely each label and each pair of labels is: forward and backward sums, scaled at each word (Rabiner, 1989). */
  shares(scores: Float64Array, length: number): Shares {
    const size = this.#size;
    const moves = new Float64Array(size * size);
    for (let at = 0; at < moves.length; at++)
      moves[at] = this.#transitions[at]! <= NEVER ? 0 : Math.exp(this.#transitions[at]!);
    const heights = new Float64Array(length * size);
    for (let from = 0; from < heights.length; from += size) {
      let highest = -Infinity;
      for (let label = 0; label < size; label++) highest = Math.max(highest, scores[from + label]!);
      for (let label = 0; label < size; label++) heights[from + label] = Math.exp(scores[from + label]! - highest);
    }
    const forward = heights.slice();
    const scale = new Float64Array(length);
    for (let row = 0; row < length; row++) {
      const from = row * size;
      if (row > 0) {
        forward.fill(0, from, from + size);
        for (let before = 0; before < size; before++) {
          const share = forward[from - size + before]!;
          for (let label = 0; label < size; label++) forward[from + label]! += share * moves[before * size + label]!;
        }
        for (let label = 0; label < size; label++) forward[from + label]! *= heights[from + label]!;
      }
      let total = 0;
      for (let label = 0; label < size; label++) total += forward[from + label]!;
      scale[row] = total;
      for (let label = 0; label < size; label++) forward[from + label]! /= total;
    }
    const pairs = new Float64Array(size * size);
    const ahead = new Float64Array(size);
    const backward = new Float64Array(size).fill(1);
    for (let row = length - 2; row >= 0; row--) {
      const from = row * size;
      for (let after = 0; after < size; after++)
        ahead[after] = (heights[from + size + after]! * backward[after]!) / scale[row + 1]!;
      for (let label = 0; label < size; label++) {
        const own = forward[from + label]!;
        let sum = 0;
        for (let after = 0; after < size; after++) {
          const reached = moves[label * size + after]! * ahead[after]!;
          sum += reached;
          pairs[label * size + after]! += own * reached;
        }
        backward[label] = sum;
        forward[from + label] = own * sum;
      }
    }
    return { words: forward, pairs };
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
    for (let row = length - 1; row > 0; row--) labels.push((label = from[row * size + label]!));
    return labels.reverse();
  }
}

/**
 * Trains a tagger by stochastic gradient steps, the sentences in their order. Deterministic.
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
    .map(({ rows, views, labels }) => ({
      labels,
      views,
      rows: rows.map((row) => Int32Array.from(row, (feature) => place.get(feature)!)),
    }));
  const weights = new Float32Array(features.length * size);
  const viewWeights = new Float32Array(VIEW_LENGTH * size);
  const transitions = new Float32Array(size * size);
  const starts = new Float32Array(size);
  for (let label = 0; label < size; label++) {
    if (!allowed(-1, label)) starts[label] = NEVER;
    for (let before = 0; before < size; before++)
      if (!allowed(before, label)) transitions[before * size + label] = NEVER;
  }
  const chain = new Chain({ size, weights, viewWeights, transitions, starts });
  const [forWeights, forViews, forTransitions, forStarts] = [weights, viewWeights, transitions, starts].map(
    descent,
  ) as [Descent, Descent, Descent, Descent];
  const gradient = new Float64Array(size);
  const share = new Float64Array(size);
  for (let round = 0; round < ROUNDS; round++) {
    for (const { rows, views, labels } of indexed) {
      const { words, pairs } = chain.shares(chain.scores(rows, views), rows.length);
      for (let row = 0; row < rows.length; row++) {
        for (let label = 0; label < size; label++)
          gradient[label] = (labels[row] === label ? 1 : 0) - words[row * size + label]!;
        const places = rows[row]!;
        for (let at = 0; at < places.length; at++) forWeights(places[at]! * size, gradient);
        const view = views[row];
        for (let at = 0; view && at < view.length; at++) {
          for (let label = 0; label < size; label++) share[label] = VIEW_SCALE * view[at]! * gradient[label]!;
          forViews(at * size, share);
        }
        if (row === 0) forStarts(0, gradient);
      }
      for (let at = 0; at < pairs.length; at++) pairs[at] = -pairs[at]!;
      for (let row = 1; row < rows.length; row++) pairs[labels[row - 1]! * size + labels[row]!]! += 1;
      forTransitions(0, pairs);
    }
  }
  return { size, features, weights, viewWeights, transitions, starts };
}

/** Takes a step along a gradient, from a place in an array on. */
type Descent = (from: number, gradient: Float64Array) => void;

/** Steps that shrink as they add up (AdaGrad; Duchi, Hazan and Singer, 2011), with an L2 penalty. */
function descent(array: Float32Array): Descent {
  const squares = new Float32Array(array.length).fill(1e-4);
  return (from, gradient) => {
    for (let at = 0; at < gradient.length; at++) {
      const towards = gradient[at]!;
      const old = array[from + at]!;
      if ((towards < LEARNED && towards > -LEARNED) || old <= NEVER) continue;
      const slope = towards - PENALTY * old;
      const sum = squares[from + at]! + slope * slope;
      squares[from + at] = sum;
      array[from + at] = old + (RATE * slope) / Math.sqrt(sum);
    }
  };
}

/** A trained tagger, ready to label sentences. */
export interface Labeller {
  /** The likeliest labels, and how likely each label is at each word: words × labels. */
  label(rows: FeatureRows, views: Views): { labels: number[]; shares: Float64Array };
}

export function openChain(model: ChainModel): Labeller {
  const place = new Map([...model.features].map((feature, index) => [feature, index]));
  const chain = new Chain(model);
  return {
    label(rows, views) {
      const known = rows.map((row) => {
        const places: number[] = [];
        for (const feature of row) {
          const at = place.get(feature);
          if (at !== undefined) places.push(at);
        }
        return Int32Array.from(places);
      });
      const scores = chain.scores(known, views);
      return { labels: chain.best(scores, rows.length), shares: chain.shares(scores, rows.length).words };
    },
  };
}
