import { VECTOR_LENGTH, type Vectors } from '../../encode/encoder.js';
import type { Language } from '../../language/language.js';
import { RowTable } from '../../linear/rowTable.js';
import { Similarities, type Gram } from '../gram.js';

/** A word of the marked utterances that a tagger learned from. Plain data. */
export interface TaughtWord {
  word: string;
  /** What it was marked as, rising: {@link OUTSIDE}, or 1 + the place of a slot. */
  groups: number[];
  /** How the encoder sees it: see {@link viewOf}. */
  view: string[];
}

/** Vectors of words, one after the other. Plain data. */
export interface WordVectors {
  words: string[];
  /** words × 512. */
  rows: Float32Array;
}

/** The group of words that belong to no value. */
export const OUTSIDE = 0;
/** How many of the nearest taught words are asked what they were marked as. */
const NEAREST = 5;
/** Cosine from which two words are told to be near to each other. */
const NEAR = 0.5;
/** Words of messages whose views are kept. */
const MOST_KEPT = 20_000;

/**
 * How the encoder sees a word, as features for the tagger: what the nearest other taught words were marked as, and which
 * slot has the nearest one. A word never counts as its own neighbour, so that words of the utterances and words never
 * seen are looked at alike.
 * @param cosines of each taught word with this one
 */
export function viewOf(
  word: string,
  taught: readonly Pick<TaughtWord, 'word' | 'groups'>[],
  cosines: ArrayLike<number>,
) {
  const nearest: { group: number; cosine: number }[] = [];
  const closest = new Map<number, number>();
  taught.forEach((other, at) => {
    if (other.word === word) return;
    const own = cosines[at]!;
    for (const group of other.groups) {
      closest.set(group, Math.max(closest.get(group) ?? 0, own));
      if (nearest.length === NEAREST && nearest.at(-1)!.cosine >= own) continue;
      const place = nearest.findIndex((item) => item.cosine < own);
      nearest.splice(place < 0 ? nearest.length : place, 0, { group, cosine: own });
      nearest.length = Math.min(nearest.length, NEAREST);
    }
  });
  if (nearest.length === 0) return [];
  const votes = new Map<number, number>();
  const view = [`vb=${nearest[0]!.group}`];
  for (const { group } of nearest) {
    votes.set(group, (votes.get(group) ?? 0) + 1);
    view.push(`vk=${group}>${votes.get(group)}`);
  }
  const slots = [...closest].filter(([group]) => group !== OUTSIDE);
  if (slots.length > 0) {
    const [slot, height] = slots.reduce((best, item) => (item[1] > best[1] ? item : best));
    view.push(`vs=${slot}`);
    if (height > (closest.get(OUTSIDE) ?? 0)) view.push('vo');
  }
  return view;
}

/** Cosines between the words of a bot's marked utterances; those of the training before are kept. */
export class WordSimilarities {
  readonly #similarities = new Similarities();
  #places = new Map<string, number>();
  #gram: Gram = { size: 0, values: new Float32Array() };

  /** Takes up the words of a training. @param words those without a vector are left out */
  open(words: readonly string[], vectors: Vectors): void {
    const known = words.filter((word) => vectors.has(word));
    this.#places = new Map(known.map((word, place) => [word, place]));
    this.#gram = this.#similarities.of(known, vectors);
  }

  /** Looks at each word of a form. @param groups what each was marked as, by word */
  view(groups: ReadonlyMap<string, ReadonlySet<number>>): TaughtWord[] {
    const taught = [...groups]
      .filter(([word]) => this.#places.has(word))
      .map(([word, marked]) => ({ word, groups: [...marked].sort((a, b) => a - b) }));
    const places = taught.map(({ word }) => this.#places.get(word)!);
    const { size, values } = this.#gram;
    return taught.map((item, at) => {
      const from = places[at]! * size;
      const cosines = Float32Array.from(places, (place) => values[from + place]!);
      return { ...item, view: viewOf(item.word, taught, cosines) };
    });
  }
}

/** Lays out the vectors of words for a model. @param words those without a vector are left out */
export function packWords(words: readonly string[], vectors: Vectors): WordVectors {
  const known = words.filter((word) => vectors.has(word));
  const rows = new Float32Array(known.length * VECTOR_LENGTH);
  known.forEach((word, place) => rows.set(vectors.get(word)!, place * VECTOR_LENGTH));
  return { words: known, rows };
}

/** The words that the taggers of a bot learned from, with their vectors at hand. */
export class WordTable {
  readonly #places: ReadonlyMap<string, number>;
  readonly #rows: RowTable;

  constructor({ words, rows }: WordVectors) {
    this.#places = new Map(words.map((word, place) => [word, place]));
    this.#rows = new RowTable(rows, VECTOR_LENGTH);
  }

  has(word: string): boolean {
    return this.#places.has(word);
  }

  /** Places of words of the table. */
  placesOf(words: readonly string[]): Int32Array {
    return Int32Array.from(words, (word) => this.#places.get(word)!);
  }

  /** The vector of a word of the table; of another word the one given for it. */
  vectorOf(word: string, given: Vectors): Float32Array | undefined {
    const place = this.#places.get(word);
    return place === undefined ? given.get(word) : this.#rows.row(place);
  }

  /** Cosines of a vector with the words at some places. */
  cosines(vector: Float32Array, places: Int32Array): Float32Array {
    return this.#rows.products(vector, places);
  }
}

/** The words of one form's utterances, ready to look at the words of messages. */
export class WordViews {
  readonly #taught: readonly TaughtWord[];
  readonly #table: WordTable;
  readonly #places: Int32Array;
  readonly #views: Map<string, string[]>;
  readonly #tellsMuch: (word: string) => boolean;

  /** @param table that has every taught word */
  constructor(taught: readonly TaughtWord[], table: WordTable, { classOf }: Language) {
    this.#tellsMuch = (word) => classOf(word) === 'other';
    this.#taught = taught;
    this.#table = table;
    this.#places = table.placesOf(taught.map(({ word }) => word));
    this.#views = new Map(taught.map(({ word, view }) => [word, view]));
  }

  /** @param vectors of the message's words; a word that is neither among them nor taught has no view */
  of(word: string, vectors: Vectors): readonly string[] {
    const known = this.#views.get(word);
    if (known) return known;
    const vector = this.#table.vectorOf(word, vectors);
    if (!vector || this.#taught.length === 0) return [];
    const view = viewOf(word, this.#taught, this.#table.cosines(vector, this.#places));
    if (this.#views.size < MOST_KEPT) this.#views.set(word, view);
    return view;
  }

  /** The word of a group that is nearest to one of these, where one is near; words of structure do not count. */
  nearest(words: readonly string[], group: number, vectors: Vectors): { word: string; near: string } | null {
    let best = { word: '', near: '', height: NEAR };
    for (const word of words.filter(this.#tellsMuch)) {
      const vector = this.#table.vectorOf(word, vectors);
      if (!vector) continue;
      const cosines = this.#table.cosines(vector, this.#places);
      this.#taught.forEach(({ word: near, groups }, at) => {
        if (near === word || !groups.includes(group) || !this.#tellsMuch(near)) return;
        if (cosines[at]! > best.height) best = { word, near, height: cosines[at]! };
      });
    }
    return best.word === '' ? null : { word: best.word, near: best.near };
  }
}
