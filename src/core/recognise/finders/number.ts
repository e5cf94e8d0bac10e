import type { Word } from '../../language/word.js';
import type { Finder, Found } from './finder.js';
import { scanWords, wordsOfText } from './words.js';

const LETTER = /\p{L}/u;

/** Digits inside a code ("A5", "LM-40213", "16th", "500gsm") are not numbers; "3x", "x3" and "5k" are. */
function standsAlone(text: string, { start, end }: Word): boolean {
  const before = text[start - 1] ?? '';
  const times = /^x$/i.test(before) && !/[\p{L}\p{N}]/u.test(text[start - 2] ?? '');
  if (times) return !LETTER.test(text[end] ?? '');
  if (LETTER.test(before) || (before === '-' && /[\p{L}\p{N}]/u.test(text[start - 2] ?? ''))) return false;
  return !LETTER.test(text[end] ?? '') || /^[xk](?!\p{L}|\p{N})/iu.test(text.slice(end));
}

/** "Minus five" is five less than nothing. */
function belowZero(text: string, found: Found, minus: RegExp): Found {
  const sign = minus.exec(text.slice(Math.max(0, found.start - 12), found.start))?.[1];
  const counts =
    sign !== undefined &&
    typeof found.value === 'number' &&
    !/[\p{N}]\s*$/u.test(text.slice(0, found.start - sign.length));
  return counts ? { ...found, start: found.start - sign.length, value: -(found.value as number) } : found;
}

/** What begins with a nought counts nothing: "077009004". */
const LIKE_A_CODE = /^0\d{2,}$/;

/** Whole and decimal numbers in digits and words. */
export const numberFinder: Finder = {
  kinds: ['number'],
  prepare(_, { language }) {
    const { readDigits, readCount, readOrdinal, isHalf, isPronoun, minus } = language.numbers;
    return (text) => {
      const words = wordsOfText(text, language);
      return scanWords(words, (at) => {
        const word = words[at]!;
        if (isHalf(words, at)) return { value: 0.5, next: at + 2, match: 'computed' };
        if (LIKE_A_CODE.test(word.said)) return null;
        const inDigits = readDigits(word.said) !== null;
        const count = inDigits && !standsAlone(text.text, word) ? null : readCount(words, at);
        if (!count || (count.next === at + 1 && isPronoun(words, at)) || (!inDigits && readOrdinal(words, at)))
          return null;
        return { ...count, match: inDigits ? 'exact' : 'computed' };
      }).map((found) => belowZero(text.text, found, minus));
    };
  },
};

/** Places in an order: "3rd", "third", "twenty-first". */
export const ordinalFinder: Finder = {
  kinds: ['ordinal'],
  prepare(_, { language }) {
    return (text) => {
      const words = wordsOfText(text, language);
      return scanWords(words, (at) => language.numbers.readOrdinal(words, at));
    };
  },
};
