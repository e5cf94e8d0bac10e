/** A word, number or code in a text. Offsets are UTF-16 code units of the original text. */
export interface Token {
  start: number;
  end: number;
  /** As written; in small letters where the whole text is in capitals, which then tell nothing. */
  text: string;
  /** Lower case, compatibility forms folded, accents and apostrophes taken off. */
  norm: string;
  /** What the word is read as, folded: another word than `norm` where it was misspelt, or two where a space was missing. */
  mended: string;
}

/** A text with its tokens. */
export interface TokenisedText {
  text: string;
  tokens: Token[];
}

const TOKEN = /[\p{L}\p{M}]+(?:['’][\p{L}]+)*|\p{N}+(?:[.,]\p{N}+)*|[&%£$€@#]/gu;

/** Folds a word to the form in which words are compared. */
export function foldWord(word: string): string {
  return word
    .normalize('NFKD')
    .replace(/[\p{M}'’]/gu, '')
    .toLowerCase();
}

/** Whether a text is written in capitals; a code or a short name alone is not. */
export function isShouted(text: string): boolean {
  return !/\p{Ll}/u.test(text) && /\p{Lu}{4}/u.test(text);
}

/** Cuts a text into tokens: runs of letters (with inner apostrophes), numbers, and a few signs that carry meaning. */
export function tokenise(text: string): TokenisedText {
  const tokens: Token[] = [];
  const shouted = isShouted(text);
  for (const match of text.matchAll(TOKEN)) {
    const norm = foldWord(match[0]);
    const written = shouted ? match[0].toLowerCase() : match[0];
    tokens.push({ start: match.index, end: match.index + match[0].length, text: written, norm, mended: norm });
  }
  return { text, tokens };
}

/** Words with one space between them, whatever stood there. */
export const tidy = (words: string): string => words.replace(/\s+/gu, ' ');

/** The place of the first token that ends after an offset; the number of tokens where none does. */
export function tokenAfter(tokens: readonly Token[], offset: number): number {
  let [from, to] = [0, tokens.length];
  while (from < to) {
    const middle = (from + to) >> 1;
    if (tokens[middle]!.end > offset) to = middle;
    else from = middle + 1;
  }
  return from;
}

/** The tokens that lie within a stretch of the text. */
export function tokensWithin(tokens: readonly Token[], start: number, end: number): Token[] {
  const within = tokens.slice(tokenAfter(tokens, start), tokenAfter(tokens, end));
  return within[0] && within[0].start < start ? within.slice(1) : within;
}

/** Of a longer message only this much is read, in UTF-16 code units and in words. */
const LONGEST_READ = 4000;
const MOST_WORDS = 500;

/** As much of a message as is read, in words: whoever reads one reads the same, whatever it holds. */
export function tokenisePart(whole: string): TokenisedText {
  const start = whole.slice(0, LONGEST_READ);
  const all = tokenise(start).tokens;
  if (all.length <= MOST_WORDS) return { text: start, tokens: all };
  const tokens = all.slice(0, MOST_WORDS);
  return { text: start.slice(0, tokens.at(-1)!.end), tokens };
}
