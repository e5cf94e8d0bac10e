/** Numbers that the encoder gives of a word in its sentence. */
export const VIEW_LENGTH = 96;

/** A word, or signs between words. */
export interface Part {
  text: string;
  isWord: boolean;
}

/** Before a word and before signs; no text that is read holds them. */
const WORD = '\u0001';
const SIGNS = '\u0002';
const PARTS = /([\u0001\u0002])([^\u0001\u0002]*)/g;

/**
 * Names the words of a text to the encoder: for this it gives no vector of the text, but a view of each of its words in
 * their sentence, {@link VIEW_LENGTH} numbers of length one each, one after the other. Words beyond what the encoder
 * reads have zeros.
 */
export const wordsText = (parts: readonly Part[]): string =>
  parts.map(({ text, isWord }) => (isWord ? WORD : SIGNS) + text).join('');

export const isWordsText = (text: string): boolean => text.startsWith(WORD) || text.startsWith(SIGNS);

/** The parts that {@link wordsText} was made of. */
export const partsOf = (text: string): Part[] =>
  [...text.matchAll(PARTS)].map(([, mark, own]) => ({ text: own!, isWord: mark === WORD }));
