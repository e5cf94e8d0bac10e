import type { Token, TokenisedText } from '../text/tokens.js';
import type { DayRead, DayReader, ReckonedFrom } from './dayReader.js';
import type { TimeRead } from './timeRead.js';
import type { Talk } from './talk.js';
import type { Count, Word } from './word.js';

/** How common a word is: the lower, the commoner (10, 20, 35, 40, 50, 55, 60). */
export type Band = number;

/** Reads what the words that begin at a place say; `null` where they do not. */
type Reading<Read> = (words: readonly Word[], at: number) => Read | null;

/** How words are written, and what they are written for. Words are folded. */
export interface Spelling {
  /** Short ways of writing that are words of their own. */
  shorthand: ReadonlyMap<string, string>;
  /** What words of one family begin with. */
  stem: (word: string) => string;
  /** Whether one of two words is the plural of the other. */
  isPlural: (one: string, other: string) => boolean;
  /** The plural of a singular, the singular of a plural. */
  otherNumber: (word: string) => string;
  /** What a word may be written for as it is spoken ("goin"); `null` where it is not. */
  asSpoken: (word: string) => string | null;
  /** Whether a word of one letter is a word. */
  isOneLetterWord: (word: string) => boolean;
}

export interface Numbers {
  /** Words below twenty, and words of tens, with what they count. */
  units: ReadonlyMap<string, number>;
  tens: ReadonlyMap<string, number>;
  /** A number in digits; `null` for anything else. */
  readDigits: (written: string) => number | null;
  readCount: Reading<Count>;
  readOrdinal: Reading<Count>;
  /** Whether letters glued to a figure make it an ordinal. */
  isOrdinalEnding: (letters: string) => boolean;
  /** Whether a word for one stands for a thing, and counts nothing: "the blue one". */
  isPronoun: (words: readonly Word[], at: number) => boolean;
  /** Whether the words at a place are half of one thing. */
  isHalf: (words: readonly Word[], at: number) => boolean;
  /** What makes a figure after it less than nothing, as its first group. */
  minus: RegExp;
}

export interface Days {
  /** All ways of naming a day, a file each. */
  readers: readonly DayReader[];
  readRange: (words: readonly Word[], at: number, context: ReckonedFrom) => DayRead | null;
  /** Index after the words of a day that no calendar has; -1 where none is named. */
  noDayAt: (words: readonly Word[], at: number) => number;
  /** Whether a word may be of a day: where none is, no day is looked for. */
  isOfDay: (word: Word) => boolean;
}

export interface Times {
  readTime: Reading<TimeRead>;
  /** So many minutes from now. */
  readMinutesAhead: Reading<Count>;
  /** Whether a word may be of a time: where none is, no time is looked for. */
  isOfTime: (word: Word) => boolean;
  /** Whether what reads like a stretch of time tells how something has grown. */
  isGrowth: (words: readonly Word[], at: number) => boolean;
  /** Whether a little word leads to a moment and is no part of it. */
  leadsTo: (word: Word) => boolean;
  /** Whether a little word may stand between a day and its time. */
  mayJoin: (word: Word) => boolean;
  /** The stretch of a day, in minutes from midnight, that a word for a day names beside it. */
  partNamed: (word: Word) => { from: number; to: number } | null;
}

export type SpanUnit = 'year' | 'month' | 'week' | 'day' | 'hour' | 'minute' | 'second';

/** How much of one unit lasts. */
export interface AmountOfTime {
  unit: SpanUnit;
  value: number;
  /** Index after the last word. */
  next: number;
}

export interface Durations {
  readAmount: Reading<AmountOfTime>;
  /** Whether a word joins two amounts. */
  joins: (word: string) => boolean;
  /** Whether a word after an amount makes it a day gone by. */
  isPast: (word: string) => boolean;
}

/** A sum of money. */
export interface Sum {
  amount: number;
  /** ISO 4217 */
  currency: string;
  /** Index after the last word. */
  next: number;
}

/** Words of codes that are spelt out. */
export interface SpeltWords {
  /** Letters by how they are said. */
  letters: ReadonlyMap<string, string>;
  /** "Double", "treble": how often the next is meant. */
  times: ReadonlyMap<string, number>;
  isNought: (word: string) => boolean;
  /** Whether a word stands for a sign that parts a code. */
  isSign: (word: string) => boolean;
}

/** Words of mail addresses that are said. */
export interface MailWords {
  signs: ReadonlyMap<string, string>;
  isAt: (word: string) => boolean;
  /** Whether a word stands before an address and is no part of it. */
  leadsTo: (word: string) => boolean;
}

export interface CountryNames {
  /** Name and ISO 3166 code; of several names of a country the first is the main one. */
  names: readonly (readonly [name: string, code: string])[];
  otherNames: readonly (readonly [name: string, code: string])[];
  /** Whether a word may be the name of a country as it is written here. */
  isName: (token: Token) => boolean;
}

/** All that the product knows of a language: a folder each. How customers talk in it is in {@link Talk}. */
export interface Language extends Talk {
  /** Messages that belong to no particular bot. */
  background: readonly string[];
  /** What the bot says of its own accord, by the name of the sentence. */
  texts: Readonly<Record<string, string | readonly string[]>>;
  /** The commonest band that a word stands in. Words are folded. */
  dictionary: ReadonlyMap<string, Band>;
  spelling: Spelling;
  /** The class of a word that tells how a sentence is built; `other` for names, things and doings. */
  classOf: (word: string) => string;
  /** Whether a word is never the first or last of a value: it hesitates or asks. */
  isEdge: (word: string) => boolean;
  /** Whether a word is a form of "to be" after another, whatever else it may stand for. */
  isVerbAfter: (before: string | undefined, word: string) => boolean;
  /** Whether a sentence has words that ask for something. */
  asks: (sentence: string) => boolean;
  /** What a word of a text is said for where numbers, days and times are read; several words apart by a blank. */
  readAs: (tokens: readonly Token[], at: number) => string;
  numbers: Numbers;
  days: Days;
  times: Times;
  durations: Durations;
  /** @param home the currency of a sum that names none (ISO 4217) */
  readMoney: (words: readonly Word[], at: number, home: string) => Sum | null;
  /** A share of a hundred. */
  readPercent: Reading<Count>;
  /** An amount with its unit, as text. */
  readQuantity: Reading<{ value: string; next: number }>;
  spelt: SpeltWords;
  mails: MailWords;
  countries: CountryNames;
  /** What a customer would say of whom a description of an intent tells. */
  asSaid: (description: string) => string;
  addressAt: (text: TokenisedText, at: number) => { start: number; end: number } | null;
  /** Index after the last word of a person named at a place; -1 where nobody is. */
  personAt: (text: TokenisedText, at: number) => number;
}
