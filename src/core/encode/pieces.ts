/** A vocabulary entry: the piece and its log probability. */
export type Piece = readonly [piece: string, score: number];

const RESERVED = 6;
const UNKNOWN = 0;
const SPACE = '\u2581';

/**
 * Splits text into the best-scoring sequence of vocabulary pieces (a unigram language model read with
 * Viterbi's algorithm, after Kudo, 2018).
 */
export class PieceSplitter {
  readonly #pieces = new Map<string, { index: number; score: number }>();
  readonly #longest: number;
  readonly #unknownScore: number;

  /** @param vocabulary all entries in the order of their numbers; the first six are reserved */
  constructor(vocabulary: readonly Piece[]) {
    let longest = 1;
    let lowest = 0;
    vocabulary.forEach(([piece, score], index) => {
      if (index < RESERVED) return;
      this.#pieces.set(piece, { index, score });
      longest = Math.max(longest, piece.length);
      lowest = Math.min(lowest, score);
    });
    this.#longest = longest;
    this.#unknownScore = lowest - 10;
  }

  /**
   * @param text any text; lone surrogates and control characters are read as unknown
   * @param limit the most pieces returned; the rest of a longer text is left out
   * @returns piece numbers; runs of unknown characters collapse to one
   */
  split(text: string, limit = 256): number[] {
    const clean = text
      .normalize('NFKC')
      .replace(/\s+/gu, ' ')
      .trim()
      .slice(0, limit * 12);
    if (clean === '') return [];
    const characters = Array.from(SPACE + clean.replaceAll(' ', SPACE));
    const length = characters.length;
    const best = new Float64Array(length + 1).fill(-Infinity);
    const from = new Int32Array(length + 1);
    const piece = new Int32Array(length + 1);
    best[0] = 0;
    for (let start = 0; start < length; start++) {
      const base = best[start] ?? -Infinity;
      let candidate = '';
      for (let end = start + 1; end <= Math.min(length, start + this.#longest); end++) {
        candidate += characters[end - 1] ?? '';
        const entry = this.#pieces.get(candidate);
        if (entry && base + entry.score > (best[end] ?? 0)) {
          best[end] = base + entry.score;
          from[end] = start;
          piece[end] = entry.index;
        }
      }
      const unknown = base + this.#unknownScore;
      if (unknown > (best[start + 1] ?? 0)) {
        best[start + 1] = unknown;
        from[start + 1] = start;
        piece[start + 1] = UNKNOWN;
      }
    }
    const found: number[] = [];
    for (let end = length; end > 0; end = from[end] ?? 0) {
      const index = piece[end] ?? UNKNOWN;
      if (index === UNKNOWN && found.at(-1) === UNKNOWN) continue;
      found.push(index);
    }
    return found.reverse().slice(0, limit);
  }
}
