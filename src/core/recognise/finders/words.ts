import { DICTIONARY } from '../../language/en/dictionary.js';
import { editDistance } from '../../text/distance.js';
import type { TokenisedText } from '../../text/tokens.js';
import type { Value } from '../value.js';
import { MONTHS, WEEKDAYS } from '../../language/en/calendar.js';
import type { Found } from './finder.js';

/** A word as the readers of numbers, dates and times take it. Offsets are UTF-16 code units of the original text. */
export interface Word {
  /** Folded, put right where it was misspelt; digits as written. */
  said: string;
  start: number;
  end: number;
  /** What stands between it and the word before, blanks taken off: '' where they are glued or only blanks stand there. */
  gap: string;
  /** Whether nothing at all stands between it and the word before. */
  glued: boolean;
}

const SHORT: ReadonlyMap<string, string> = new Map(
  Object.entries({
    mon: 'monday',
    tue: 'tuesday',
    tues: 'tuesday',
    wed: 'wednesday',
    weds: 'wednesday',
    thu: 'thursday',
    thur: 'thursday',
    thurs: 'thursday',
    fri: 'friday',
    jan: 'january',
    feb: 'february',
    apr: 'april',
    jun: 'june',
    jul: 'july',
    aug: 'august',
    sep: 'september',
    sept: 'september',
    oct: 'october',
    nov: 'november',
    dec: 'december',
    tmrw: 'tomorrow',
    tomoz: 'tomorrow',
    tomo: 'tomorrow',
    '2moro': 'tomorrow',
    tonite: 'tonight',
    forty: 'forty',
    fourty: 'forty',
  }),
);

/** Long words that misspelt ones are drawn to, whatever the bot's own words. */
const STRONG = [
  ...WEEKDAYS,
  ...MONTHS.filter((month) => month.length > 5),
  'tomorrow',
  'fortnight',
  'weekend',
  'christmas',
  'tonight',
];

function strongWord(norm: string): string | undefined {
  if (norm.length < 5 || DICTIONARY.has(norm)) return undefined;
  const limit = norm.length < 7 ? 1 : 2;
  return STRONG.find((word) => word[0] === norm[0] && editDistance(norm, word, limit) <= limit);
}

/** "Tomorrow's" and "todays" are said for the day. */
const DAYS_OWN = new RegExp(`^(today|tonight|tomorrow|yesterday|${WEEKDAYS.join('|')})['’]?s$`);

function saidFor(norm: string, read: string, written: string): string {
  const day = DAYS_OWN.exec(norm)?.[1];
  if (day !== undefined) return day;
  // "We'd" is no Wednesday.
  return /['’]/.test(written) ? read : (SHORT.get(norm) ?? strongWord(norm) ?? read);
}

const AFTER_WOULD = /^(?:like|love|rather|prefer|be|have|need|want|appreciate|also|really|just|both|all|best)$/;

const lastRead = new WeakMap<TokenisedText, Word[]>();

/** The words of a text, as numbers, dates and times are read from them. */
export function wordsOfText(text: TokenisedText): Word[] {
  const known = lastRead.get(text);
  if (known) return known;
  const words: Word[] = [];
  let before = 0;
  for (const [at, { norm, read, start, end, text: written }] of text.tokens.entries()) {
    const between = text.text.slice(before, start);
    // "Wed like some" lacks an apostrophe.
    const would = norm === 'wed' && AFTER_WOULD.test(text.tokens[at + 1]?.norm ?? '');
    const said = would ? norm : saidFor(norm, read, written);
    said.split(' ').forEach((part, index) => {
      words.push({
        said: part,
        start,
        end,
        gap: index === 0 ? between.trim() : '',
        glued: index === 0 && between === '' && words.length > 0,
      });
    });
    before = end;
  }
  lastRead.set(text, words);
  return words;
}

/** A value read from the words that begin at a place. */
export interface WordReading {
  value: Value;
  /** Index after the last word. */
  next: number;
  /** How it was found; computed where it is not said. */
  match?: Found['match'];
}

/** Reads values from left to right, each beginning after the last. @param read gives `null` where no value begins */
export function scanWords(words: readonly Word[], read: (at: number) => WordReading | null): Found[] {
  const found: Found[] = [];
  for (let at = 0; at < words.length;) {
    const reading = read(at);
    if (reading) {
      found.push({
        start: words[at]!.start,
        end: words[reading.next - 1]!.end,
        value: reading.value,
        match: reading.match ?? 'computed',
      });
      at = reading.next;
    } else at++;
  }
  return found;
}

/** Whether two neighbours belong to one phrase: at most a blank, a comma or a hyphen stands between them. */
export const joined = (word: Word | undefined): boolean => word !== undefined && /^[,-]?$/.test(word.gap);
