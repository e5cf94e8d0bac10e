import type { Word } from './word.js';
import type { Days } from '../recognise/finders/dates/calendar.js';

/** What days are reckoned from, and how figures are ordered. */
export interface DayContext {
  today: Date;
  /** ISO 3166 country; in the United States the month comes first. */
  region: string;
  /** How many days this one is reckoned from, one from the other ("the day after the day before Easter"). */
  depth?: number;
  /** All ways of naming a day in the language. */
  readers: readonly DayReader[];
  /** Reads the day that words at a place name, for those that reckon one day from another. */
  read: DayReader;
  /** What was read so far of these words from this day on, so that no place is read twice. */
  known?: Map<number, DayRead | null>;
}

/** What a day is reckoned from by whoever asks for one. */
export type ReckonedFrom = Omit<DayContext, 'read'>;

/** A day or a stretch of days that words name. */
export interface DayRead extends Days {
  /** Index after the last word. */
  next: number;
  /** Of a stretch between two named days, the words of each: index of the first and after the last. */
  ends?: readonly { at: number; next: number; day: Date }[];
  /** Whether the words name a part of the day as well ("this evening"). */
  withPart?: true;
}

/** Reads one way of naming a day from the words that begin at a place; `null` where they do not. */
export type DayReader = (words: readonly Word[], at: number, context: DayContext) => DayRead | null;
