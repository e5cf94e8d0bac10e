import type { Finder } from './finder.js';
import { scanWords, wordsOfText } from './words.js';

/** Amounts with a unit of measure, as text. */
export const quantityFinder: Finder = {
  kinds: ['quantity'],
  prepare:
    (_, { language }) =>
    (text) => {
      const words = wordsOfText(text, language);
      return scanWords(words, (at) => language.readQuantity(words, at));
    },
};
