/** A text with some words replaced, and the way back to where they stood. */
export interface MendedText {
  text: string;
  /** The offset in the original text of an offset in the mended one. */
  original(offset: number): number;
}

/**
 * Replaces whole words.
 * @param tokens words, or stretches of several, in text order
 * @param mend gives the words to put in a token's place, or `null` to leave it
 * @param offset where the text begins in the one that the tokens were cut from
 */
export function mendWords<T extends { start: number; end: number }>(
  text: string,
  tokens: readonly T[],
  mend: (token: T) => string | null,
  offset = 0,
): MendedText {
  let mended = '';
  let from = 0;
  const shifts: { at: number; end: number; start: number; stop: number }[] = [];
  for (const token of tokens) {
    const word = mend(token);
    if (word === null) continue;
    const [start, stop] = [token.start - offset, token.end - offset];
    mended += text.slice(from, start);
    shifts.push({ at: mended.length, end: mended.length + word.length, start, stop });
    mended += word;
    from = stop;
  }
  mended += text.slice(from);
  return {
    text: mended,
    original(offset) {
      let before = { end: 0, stop: 0 };
      for (const shift of shifts) {
        if (offset < shift.at) break;
        if (offset === shift.at) return shift.start;
        if (offset < shift.end) return Math.min(shift.start + (offset - shift.at), shift.stop);
        before = shift;
      }
      return before.stop + (offset - before.end);
    },
  };
}
