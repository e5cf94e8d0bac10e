/** A word of a list that a written one may be, and the edits between them. */
export interface NearWord {
  word: string;
  edits: number;
}

/** Longer words are not looked for. */
const LONGEST = 40;

/**
 * Words that are found by a misspelling of them, without looking at each from its first letter on: they are kept in
 * order, and what two neighbours begin with is compared once.
 */
export class NearWords {
  readonly #words: readonly string[];
  /** How many letters each shares with the one before it. */
  readonly #shared: Uint8Array;
  /** Edits between every beginning of the written word and of the word that is looked at: a row a letter of the latter. */
  readonly #rows = Array.from({ length: LONGEST + 1 }, () => new Uint8Array(LONGEST + 1));

  constructor(words: Iterable<string>) {
    this.#words = [...new Set(words)].filter((word) => word.length <= LONGEST).sort();
    this.#shared = Uint8Array.from(this.#words, (word, at) => sharedStart(word, this.#words[at - 1] ?? ''));
  }

  /**
   * The words that are near to a written one: insertion, deletion, substitution and the swap of two neighbours cost one
   * each (optimal string alignment; Damerau, 1964).
   * @param limitFor the most edits that a word may be off
   */
  near(written: string, limitFor: (word: string) => number): NearWord[] {
    if (written.length > LONGEST) return [];
    const found: NearWord[] = [];
    const rows = this.#rows;
    for (let column = 0; column <= written.length; column++) rows[0]![column] = column;
    let held = 0; // rows that hold for the word that is looked at
    let apart = { letters: Infinity, limit: 0 }; // a beginning that is too far away already
    for (let at = 0; at < this.#words.length; at++) {
      const word = this.#words[at]!;
      const shared = this.#shared[at]!;
      held = Math.min(held, shared);
      const limit = limitFor(word);
      if (shared < apart.letters) apart = { letters: Infinity, limit: 0 };
      else if (limit <= apart.limit) continue;
      if (Math.abs(word.length - written.length) > limit) continue;
      let lowest = 0;
      while (held < word.length && lowest <= limit) lowest = fillRow(rows, ++held, word, written);
      if (lowest > limit) apart = { letters: held, limit };
      else if (rows[word.length]![written.length]! <= limit)
        found.push({ word, edits: rows[word.length]![written.length]! });
    }
    return found;
  }
}

/** Fills the row of a letter from the two before it. @returns the least of the row: what follows is no nearer */
function fillRow(rows: readonly Uint8Array[], at: number, word: string, written: string): number {
  const [current, last] = [rows[at]!, rows[at - 1]!];
  const [own, before] = [word.charCodeAt(at - 1), at > 1 ? word.charCodeAt(at - 2) : -1];
  let lowest = (current[0] = at);
  for (let column = 1; column <= written.length; column++) {
    const letter = written.charCodeAt(column - 1);
    let edits = Math.min(last[column]! + 1, current[column - 1]! + 1, last[column - 1]! + (own === letter ? 0 : 1));
    if (column > 1 && own === written.charCodeAt(column - 2) && before === letter)
      edits = Math.min(edits, rows[at - 2]![column - 2]! + 1);
    current[column] = edits;
    if (edits < lowest) lowest = edits;
  }
  return lowest;
}

function sharedStart(a: string, b: string): number {
  let length = 0;
  while (length < a.length && a[length] === b[length]) length++;
  return length;
}
