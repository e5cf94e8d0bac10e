/** A word, number or code in a text. Offsets are UTF-16 code units of the original text. */
export interface Token {
  start: number;
  end: number;
  /** As written. */
  text: string;
  /** Lower case, compatibility forms folded, accents and apostrophes taken off. */
  norm: string;
  /** What the word is read as, folded: another word than `norm` where it was misspelt, or two where a space was missing. */
  read: string;
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

/** Cuts a text into tokens: runs of letters (with inner apostrophes), numbers, and a few signs that carry meaning. */
export function tokenise(text: string): TokenisedText {
  const tokens: Token[] = [];
  for (const match of text.matchAll(TOKEN)) {
    const norm = foldWord(match[0]);
    tokens.push({ start: match.index, end: match.index + match[0].length, text: match[0], norm, read: norm });
  }
  return { text, tokens };
}
