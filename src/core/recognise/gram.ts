import { VECTOR_LENGTH, type Vectors } from '../encode/encoder.js';
import { product } from '../linear/workspace.js';
import type { SparseVector } from './features.js';

/** A square symmetric matrix, row-major: the products of all pairs of texts. */
export interface Gram {
  size: number;
  values: Float32Array;
}

/** Lays the sentence vectors of texts out one after the other: texts × VECTOR_LENGTH. */
export function denseRows(texts: readonly string[], vectors: Vectors): Float32Array {
  const rows = new Float32Array(texts.length * VECTOR_LENGTH);
  texts.forEach((text, row) => {
    const vector = vectors.get(text);
    if (!vector) throw new Error(`No sentence vector for "${text}".`);
    rows.set(vector, row * VECTOR_LENGTH);
  });
  return rows;
}

/** Cosines of the sentence vectors of texts. Those of the training before are kept, since an edit changes few texts. */
export class Similarities {
  #places = new Map<string, number>();
  #gram: Gram = { size: 0, values: new Float32Array() };

  /** @param texts each with its vector */
  of(texts: readonly string[], vectors: Vectors): Gram {
    const size = texts.length;
    const values = new Float32Array(size ** 2);
    const before = Int32Array.from(texts, (text) => this.#places.get(text) ?? -1);
    for (let row = 0; row < size; row++) {
      const from = before[row]! * this.#gram.size;
      if (from < 0) continue;
      for (let column = 0; column < size; column++)
        if (before[column]! >= 0) values[row * size + column] = this.#gram.values[from + before[column]!]!;
    }
    const fresh = [...texts.keys()].filter((row) => before[row]! < 0);
    if (fresh.length > 0) {
      const all = denseRows(texts, vectors);
      const own =
        fresh.length === size
          ? all
          : denseRows(
              fresh.map((row) => texts[row]!),
              vectors,
            );
      const products = product(own, all, { rows: fresh.length, inner: VECTOR_LENGTH, columns: size, transposed: true });
      fresh.forEach((row, at) => {
        values.set(products.subarray(at * size, (at + 1) * size), row * size);
        for (let column = 0; column < size; column++) values[column * size + row] = products[at * size + column]!;
      });
    }
    this.#places = new Map(texts.map((text, row) => [text, row]));
    this.#gram = { size, values };
    return this.#gram;
  }
}

/** Some rows of a matrix and some columns, each product scaled, and a constant added to it: rows × columns. */
export function submatrix(
  gram: Gram,
  rows: readonly number[],
  columns: readonly number[],
  { scale = 1, constant = 0 }: { scale?: number; constant?: number } = {},
): Float32Array {
  const width = columns.length;
  const values = new Float32Array(rows.length * width);
  const places = Int32Array.from(columns);
  for (let row = 0; row < rows.length; row++) {
    const from = rows[row]! * gram.size;
    for (let column = 0; column < width; column++)
      values[row * width + column] = scale * gram.values[from + places[column]!]! + constant;
  }
  return values;
}

/**
 * Adds the products of all pairs of term vectors to a Gram matrix. Each term keeps the texts that have it, so that only
 * texts with something in common meet.
 */
export function addSparseProducts({ size, values }: Gram, vectors: readonly SparseVector[], terms: number): void {
  const starts = new Int32Array(terms + 1);
  for (const { indices } of vectors) for (let at = 0; at < indices.length; at++) starts[indices[at]! + 1]!++;
  for (let term = 0; term < terms; term++) starts[term + 1]! += starts[term]!;
  const ends = starts.slice();
  const holders = new Int32Array(starts[terms]!);
  const shares = new Float64Array(starts[terms]!);
  const row = new Float64Array(size);
  for (let index = 0; index < size; index++) {
    const { indices, weights } = vectors[index]!;
    row.fill(0, 0, index + 1);
    for (let at = 0; at < indices.length; at++) {
      const term = indices[at]!;
      const weight = weights[at]!;
      const end = ends[term]!++;
      holders[end] = index;
      shares[end] = weight;
      for (let held = starts[term]!; held <= end; held++) row[holders[held]!]! += weight * shares[held]!;
    }
    for (let other = 0; other <= index; other++) {
      const sum = row[other]!;
      values[index * size + other]! += sum;
      if (other !== index) values[other * size + index]! += sum;
    }
  }
}
