import { VECTOR_LENGTH } from '../encode/encoder.js';
import { RowTable } from '../linear/rowTable.js';
import { TermTable, type TermPlaces } from '../linear/termTable.js';
import type { SparseVector } from './features.js';
import type { Gram } from './gram.js';

/** Texts that a model was taught, kept to find the one of each class that is nearest to a message. Plain data. */
export interface TaughtTexts extends TermPlaces {
  /** The class of each text. */
  classes: Int32Array;
  /** texts × {@link VECTOR_LENGTH}; empty without an encoder. */
  vectors: Float32Array;
}

/** Keeps texts by their terms. @param terms of the vocabulary */
export function keepTexts(
  texts: readonly { label: number; sparse: SparseVector }[],
  vectors: Float32Array,
  terms: number,
): TaughtTexts {
  const starts = new Int32Array(terms + 1);
  for (const { sparse } of texts) for (const place of sparse.indices) starts[place + 1]!++;
  for (let term = 0; term < terms; term++) starts[term + 1]! += starts[term]!;
  const ends = starts.slice();
  const holders = new Int32Array(starts[terms]!);
  const weights = new Float32Array(starts[terms]!);
  texts.forEach(({ sparse }, text) => {
    sparse.indices.forEach((place, at) => {
      const to = ends[place]!++;
      holders[to] = text;
      weights[to] = sparse.weights[at]!;
    });
  });
  return { classes: Int32Array.from(texts, ({ label }) => label), vectors, starts, holders, weights };
}

/** Finds how near the nearest text of each class is to a message. */
export type FindNearest = (sparse: SparseVector, vector: Float32Array | null) => Float64Array;

/**
 * @param classes how many there are
 * @param kernel how much the cosine of sentence vectors counts beside the product of terms, and what every pair has
 */
export function openTexts(
  taught: TaughtTexts,
  classes: number,
  kernel: { dense: number; constant: number },
): FindNearest {
  const rows = new RowTable(taught.vectors, VECTOR_LENGTH);
  const { classes: labels } = taught;
  const terms = new TermTable(taught, labels.length);
  return (sparse, vector) => {
    const shared = terms.products(sparse.indices, sparse.weights);
    const cosines = vector && rows.size > 0 ? rows.products(vector) : null;
    const nearest = new Float64Array(classes);
    for (let text = 0; text < labels.length; text++) {
      const height = shared[text]! + (cosines ? kernel.dense * cosines[text]! : 0) + kernel.constant;
      if (height > nearest[labels[text]!]!) nearest[labels[text]!] = height;
    }
    return nearest;
  };
}

/** How near the nearest of some rows is to another row, by class. @param labels of all rows */
export function nearestRows(
  { size, values }: Gram,
  row: number,
  { among, labels, classes }: { among: readonly number[]; labels: Int32Array; classes: number },
): Float64Array {
  const nearest = new Float64Array(classes);
  for (const other of among) {
    const height = values[row * size + other]!;
    if (height > nearest[labels[other]!]!) nearest[labels[other]!] = height;
  }
  return nearest;
}
