/** A piece and the logarithm of its probability. */
export type Piece = readonly [piece: string, score: number];

/** Pieces that stand for no characters. */
const SPECIAL = { start: '<s>', end: '</s>', unknown: '<unk>', padding: '<pad>' } as const;
/** Stands for a space, and before the first word. */
const SPACE = '\u2581';
/** An unknown character is less likely by this than the least likely piece. */
const UNLIKELY = 10;
/** Words whose pieces are kept. */
const MOST_KEPT = 50_000;
/** Characters of a text that are looked at, for each piece that may be kept. */
const CHARACTERS_A_PIECE = 12;

/**
 * Cuts texts into the likeliest sequence of pieces (a unigram language model, read with Viterbi's algorithm; Kudo, 2018).
 */
export class PieceSplitter {
  readonly #pieces = new Map<string, { number: number; score: number }>();
  readonly #words = new Map<string, readonly number[]>();
  readonly #longest: number;
  readonly #unknownScore: number;
  readonly #special: Record<keyof typeof SPECIAL, number>;

  /** @param vocabulary all pieces in the order of their numbers
   *  @throws if a special piece is missing */
  constructor(vocabulary: readonly Piece[]) {
    const numberOf = (name: string): number => {
      const number = vocabulary.findIndex(([piece]) => piece === name);
      if (number < 0) throw new Error(`The encoder's vocabulary lacks ${name}.`);
      return number;
    };
    this.#special = {
      start: numberOf(SPECIAL.start),
      end: numberOf(SPECIAL.end),
      unknown: numberOf(SPECIAL.unknown),
      padding: numberOf(SPECIAL.padding),
    };
    const special = new Set<number>(Object.values(this.#special));
    let longest = 1;
    let lowest = 0;
    vocabulary.forEach(([piece, score], number) => {
      lowest = Math.min(lowest, score);
      if (special.has(number)) return;
      this.#pieces.set(piece, { number, score });
      longest = Math.max(longest, Array.from(piece).length);
    });
    this.#longest = longest;
    this.#unknownScore = lowest - UNLIKELY;
  }

  /**
   * @param text any text; lone surrogates and control characters are unknown
   * @param most pieces at most, those of start and end among them; the rest of a longer text is left out
   * @returns piece numbers between that of the start and that of the end; a run of unknown characters is one piece
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
      .normalize('NFKC')
      .replace(/\s+/gu, ' ')
      .trim();
    const found: number[] = [];
    for (const word of plain === '' ? [] : plain.split(' ')) {
      if (found.length >= most - 2) break;
      found.push(...this.#piecesOf(word));
    }
    return found;
  }

  /** No piece goes over a space, so that each word is cut by itself, and words come again. */
  #piecesOf(word: string): readonly number[] {
    const known = this.#words.get(word);
    if (known) return known;
    const found = this.#likeliest(SPACE + word);
    if (this.#words.size < MOST_KEPT) this.#words.set(word, found);
    return found;
  }

  #likeliest(text: string): number[] {
    const characters = Array.from(text);
    const length = characters.length;
    const best = new Float64Array(length + 1).fill(-Infinity);
    const from = new Int32Array(length + 1);
    const piece = new Int32Array(length + 1);
    best[0] = 0;
    for (let start = 0; start < length; start++) {
      const base = best[start]!;
      let candidate = '';
      for (let end = start + 1; end <= Math.min(length, start + this.#longest); end++) {
        candidate += characters[end - 1]!;
        const entry = this.#pieces.get(candidate);
        if (!entry || base + entry.score <= best[end]!) continue;
        best[end] = base + entry.score;
        from[end] = start;
        piece[end] = entry.number;
      }
      const unknown = base + this.#unknownScore;
      if (unknown <= best[start + 1]!) continue;
      best[start + 1] = unknown;
      from[start + 1] = start;
      piece[start + 1] = this.#special.unknown;
    }
    const found: number[] = [];
    for (let end = length; end > 0; end = from[end]!) {
      const number = piece[end]!;
      if (number === this.#special.unknown && found.at(-1) === number) continue;
      found.push(number);
    }
    return found.reverse();
  }
}
