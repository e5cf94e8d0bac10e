import { Workspace } from './workspace.js';

/** Which texts have a term, and how much it weighs in them, term by term. Plain data. */
export interface TermPlaces {
  /** Where the texts that have a term begin in `holders`, by the place of the term in the vocabulary: terms + 1. */
  starts: Int32Array;
  holders: Int32Array;
  /** How much the term weighs in each of these texts. */
  weights: Float32Array;
}

const NUMBER_BYTES = 4;

/** The terms of texts, kept in the kernel's memory and compared with those of one text at a time. */
export class TermTable {
  readonly #space: Workspace;
  readonly #starts: Int32Array;
  readonly #holders: number;
  readonly #weights: number;
  readonly #sums: number;
  readonly #sumsView: Float32Array;

  /** @param texts how many there are */
  constructor({ starts, holders, weights }: TermPlaces, texts: number) {
    this.#space = new Workspace(2 * holders.length + texts + 16);
    this.#starts = starts;
    this.#holders = this.#space.reserve(holders.length);
    this.#space.wholes(this.#holders, holders.length).set(holders);
    this.#weights = this.#space.reserve(weights.length);
    this.#space.view(this.#weights, weights.length).set(weights);
    this.#sums = this.#space.reserve(texts);
    this.#sumsView = this.#space.view(this.#sums, texts);
  }

  /**
   * The product of the terms of a text with those of each text kept; the next call writes over them.
   * @param indices places of the terms in the vocabulary
   */
  products(indices: Int32Array, weights: Float64Array): Readonly<Float32Array> {
    this.#sumsView.fill(0);
    for (let at = 0; at < indices.length; at++) {
      const start = this.#starts[indices[at]!]!;
      const count = this.#starts[indices[at]! + 1]! - start;
      const [places, own] = [this.#holders + start * NUMBER_BYTES, this.#weights + start * NUMBER_BYTES];
      this.#space.spread(this.#sums, { places, weights: own, scale: weights[at]! }, count);
    }
    return this.#sumsView;
  }
}
