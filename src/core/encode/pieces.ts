/** Pieces that stand for no characters. */
const SPECIAL = { start: '[CLS]', end: '[SEP]', unknown: '[UNK]', padding: '[PAD]' } as const;
/** Before a piece that goes on with a word. */
const GOES_ON = '##';
/** A longer word is not cut but read as unknown. */
const LONGEST_WORD = 100;
/** Words whose pieces are kept. */
const MOST_KEPT = 50_000;
/** Characters of a text that are looked at, for each piece that may be kept. */
const CHARACTERS_A_PIECE = 12;
/** What is neither seen nor a space: control characters, signs of format, lone surrogates. */
const UNSEEN = /(?![\t\n\r])\p{C}|\uFFFD/gu;
const ACCENTS = /\p{Mn}/gu;
/** A sign, or a character of a script without spaces, is a word of its own; so is what stands between them. */
const WORDS = /[\p{P}$+<=>^`|~]|\p{Unified_Ideograph}|[^\s\p{P}$+<=>^`|~\p{Unified_Ideograph}]+/gu;

/**
 * Cuts texts into words, and words into the longest pieces there are, from left to right (WordPiece; Wu et al., 2016).
 * Capitals and accents are not told apart.
 */
export class PieceSplitter {
  readonly #pieces: ReadonlyMap<string, number>;
  readonly #words = new Map<string, readonly number[]>();
  readonly #special: Record<keyof typeof SPECIAL, number>;

  /** @param vocabulary all pieces in the order of their numbers
   *  @throws if a special piece is missing */
  constructor(vocabulary: readonly string[]) {
    this.#pieces = new Map(vocabulary.map((piece, number) => [piece, number]));
    const numberOf = (name: string): number => {
      const number = this.#pieces.get(name);
      if (number === undefined) throw new Error(`The encoder's vocabulary lacks ${name}.`);
      return number;
    };
    this.#special = {
      start: numberOf(SPECIAL.start),
      end: numberOf(SPECIAL.end),
      unknown: numberOf(SPECIAL.unknown),
      padding: numberOf(SPECIAL.padding),
    };
  }

  /**
   * @param text any text; what cannot be seen in it is left out
   * @param most pieces at most, those of start and end among them; the rest of a longer text is left out
   * @returns piece numbers between that of the start and that of the end; a word that no pieces make is one unknown piece
   */
  split(text: string, most: number): number[] {
    const { start, end } = this.#special;
    return [start, ...this.#cut(text, most).slice(0, most - 2), end];
  }

  /**
   * Cuts the parts of a text, each as it would be cut after a space.
   * @returns piece numbers as {@link split} gives them, and the part that each belongs to: -1 for the marks
   */
  splitParts(parts: readonly string[], most: number): { pieces: number[]; owners: number[] } {
    const { start, end } = this.#special;
    const [pieces, owners] = [[start], [-1]];
    for (const [part, text] of parts.entries()) {
      const room = most - 1 - pieces.length;
      if (room <= 0) break;
      for (const piece of this.#cut(text, room + 2).slice(0, room)) {
        pieces.push(piece);
        owners.push(part);
      }
    }
    return { pieces: [...pieces, end], owners: [...owners, -1] };
  }

  #cut(text: string, most: number): number[] {
    const plain = text
      .slice(0, most * CHARACTERS_A_PIECE)
      .replace(UNSEEN, '')
      .normalize('NFD')
      .replace(ACCENTS, '')
      .toLowerCase();
    const found: number[] = [];
    for (const [word] of plain.matchAll(WORDS)) {
      if (found.length >= most - 2) break;
      found.push(...this.#piecesOf(word));
    }
    return found;
  }

  /** Words come again. */
  #piecesOf(word: string): readonly number[] {
    const known = this.#words.get(word);
    if (known) return known;
    const found = this.#longestPieces(word) ?? [this.#special.unknown];
    if (this.#words.size < MOST_KEPT) this.#words.set(word, found);
    return found;
  }

  /** @returns undefined for a word that no pieces make */
  #longestPieces(word: string): number[] | undefined {
    const characters = Array.from(word);
    if (characters.length > LONGEST_WORD) return undefined;
    const found: number[] = [];
    let start = 0;
    while (start < characters.length) {
      let end = characters.length;
      let number: number | undefined;
      while (end > start) {
        number = this.#pieces.get((start > 0 ? GOES_ON : '') + characters.slice(start, end).join(''));
        if (number !== undefined) break;
        end--;
      }
      if (number === undefined) return undefined;
      found.push(number);
      start = end;
    }
    return found;
  }
}
