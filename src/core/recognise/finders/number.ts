import { readCount, readDigits, readOrdinal } from '../../language/en/numbers.js';
import type { Finder, Found } from './finder.js';
import { scanWords, wordsOfText, type Word } from './words.js';

/** Words before "one" that make it a pronoun: "this one", "the blue one". */
const BEFORE_PRONOUN =
  /^(?:this|that|the|which|another|any|no|each|every|some|right|wrong|other|last|next|same|first|second|third|only|new|old|big|small|large|little)$/;
const ARTICLE = /^(?:the|an?|that|this|my|your|our)$/;
/** Words that never stand between an article and "one". */
const NO_ADJECTIVE = /^(?:for|and|or|to|want|need|just|at|of|have|get|order|please|by|with|is|are|like|take|send|make|be)$/;
const LETTER = /\p{L}/u;

/** Digits inside a code ("A5", "LM-40213", "16th", "500gsm") are not numbers; "3x", "x3" and "5k" are. */
function standsAlone(text: string, { start, end }: Word): boolean {
  const before = text[start - 1] ?? '';
  const times = /^x$/i.test(before) && !/[\p{L}\p{N}]/u.test(text[start - 2] ?? '');
  if (times) return !LETTER.test(text[end] ?? '');
  if (LETTER.test(before) || (before === '-' && /[\p{L}\p{N}]/u.test(text[start - 2] ?? ''))) return false;
  return !LETTER.test(text[end] ?? '') || /^[xk](?!\p{L}|\p{N})/iu.test(text.slice(end));
}

/** "this one", "the blue one", "no one", "one of us". */
function isPronoun(words: readonly Word[], at: number): boolean {
  if (words[at]!.said !== 'one') return false;
  const before = words[at - 1]?.said ?? '';
  // "Only one of those" counts; "the only one" does not.
  if (words[at + 1]?.said === 'of' && /^(?:your|our|us|you|my|their|his|her)$/.test(words[at + 2]?.said ?? '')) return true;
  if (/^(?:only|just)$/.test(before) && !ARTICLE.test(words[at - 2]?.said ?? '')) return false;
  const earlier = words.slice(Math.max(0, at - 3), Math.max(0, at - 1));
  return BEFORE_PRONOUN.test(before) || (!NO_ADJECTIVE.test(before) && earlier.some(({ said }) => ARTICLE.test(said)));
}

/** What half of is an amount or a time of its own. */
const HALF_OF = /^(?:dozen|hour|hr|day|minute|mile|year|century|million|thousand|hundred|pint|litre|kilo|pound|second|mo|sec|chance|past|price|term|way|century|tick|metre|inch|yard|acre|stone|tonne|ton)s?$/;

/** "Half a rose": half of one thing. */
const isHalf = (words: readonly Word[], at: number): boolean =>
  words[at]!.said === 'half' &&
  /^an?$/.test(words[at + 1]?.said ?? '') &&
  words[at + 2] !== undefined &&
  !HALF_OF.test(words[at + 2]!.said) &&
  !/^(?:and|a|an|past|the)$/.test(words[at - 1]?.said ?? '');

const MINUS = /(?:^|[^\p{L}\p{N}])(minus\s+|negative\s+|[-−])$/iu;

/** "Minus five" is five less than nothing. */
function belowZero(text: string, found: Found): Found {
  const sign = MINUS.exec(text.slice(Math.max(0, found.start - 12), found.start))?.[1];
  const counts = sign !== undefined && typeof found.value === 'number' && !/[\p{N}]\s*$/u.test(text.slice(0, found.start - sign.length));
  return counts ? { ...found, start: found.start - sign.length, value: -(found.value as number) } : found;
}

/** What begins with a nought counts nothing: "077009004". */
const LIKE_A_CODE = /^0\d{2,}$/;

/** Whole and decimal numbers in digits and words. */
export const numberFinder: Finder = {
  kinds: ['number'],
  prepare() {
    return (text) => {
      const words = wordsOfText(text);
      return scanWords(words, (at) => {
        const word = words[at]!;
        if (isHalf(words, at)) return { value: 0.5, next: at + 2, match: 'computed' };
        if (LIKE_A_CODE.test(word.said)) return null;
        const inDigits = readDigits(word.said) !== null;
        const count = inDigits && !standsAlone(text.text, word) ? null : readCount(words, at);
        if (!count || (count.next === at + 1 && isPronoun(words, at)) || (!inDigits && readOrdinal(words, at))) return null;
        return { ...count, match: inDigits ? 'exact' : 'computed' };
      }).map((found) => belowZero(text.text, found));
    };
  },
};

/** Places in an order: "3rd", "third", "twenty-first". */
export const ordinalFinder: Finder = {
  kinds: ['ordinal'],
  prepare() {
    return (text) => {
      const words = wordsOfText(text);
      return scanWords(words, (at) => readOrdinal(words, at));
    };
  },
};
