import { readOrdinal } from '../numbers.js';
import { MONTHS, WEEKDAYS } from '../calendar.js';
import { dayOf, dayOfYearAhead, monthAhead, monthOf, type Days } from '../../../recognise/finders/dates/calendar.js';
import type { DayContext, DayRead } from '../../dayReader.js';
import { joined, said, type Word } from '../../word.js';

export { said } from '../../word.js';

export type Unit = 'day' | 'week' | 'fortnight' | 'month' | 'year';

export const one = (day: Date | null, next: number): DayRead | null => (day ? { from: day, to: day, next } : null);
export const stretch = (days: Days, next: number): DayRead => ({ from: days.from, to: days.to, next });

/** Whether the words from a place are these, none of them parted from the one before by more than a comma. */
export function saidAll(words: readonly Word[], at: number, phrase: string): boolean {
  if (!phrase.startsWith(said(words, at))) return false;
  return phrase
    .split(' ')
    .every((word, index) => said(words, at + index) === word && (index === 0 || joined(words[at + index])));
}

export const skip = (words: readonly Word[], at: number, pattern: RegExp): number =>
  pattern.test(said(words, at)) ? at + 1 : at;
export const skipThe = (words: readonly Word[], at: number): number => skip(words, at, /^the$/);

/** Short names of days that are words of their own. */
const SHORT_DAYS: ReadonlyMap<string, number> = new Map([
  ['sat', 6],
  ['sun', 0],
]);

export function weekdayAt(words: readonly Word[], at: number): number {
  const word = said(words, at);
  const short = SHORT_DAYS.get(word);
  if (short !== undefined) {
    const before = said(words, at - 1);
    const certain =
      /^(?:on|this|next|by|for|last|coming|every|until|till|or|and|from|a)$/.test(before) ||
      /^(?:at|am|pm|morning|afternoon|evening|week|\d)/.test(said(words, at + 1)) ||
      words.length === 1;
    return certain ? short : -1;
  }
  return WEEKDAYS.indexOf(word);
}

export const monthAt = (words: readonly Word[], at: number): number =>
  said(words, at) === 'mar' ? 2 : MONTHS.indexOf(said(words, at));

export function unitAt(words: readonly Word[], at: number): Unit | null {
  const match = /^(day|week|fortnight|month|year)s?$/.exec(said(words, at));
  return match ? (match[1] as Unit) : null;
}

/** A day of the month: "3", "3rd", "third", "twenty-first". */
export function monthDay(words: readonly Word[], at: number): { value: number; next: number; ordinal: boolean } | null {
  const ordinal = readOrdinal(words, at);
  if (ordinal && ordinal.value >= 1 && ordinal.value <= 31) return { ...ordinal, ordinal: true };
  const word = words[at];
  if (!word || !/^\d{1,2}$/.test(word.said) || Number(word.said) < 1 || Number(word.said) > 31) return null;
  const after = words[at + 1];
  // A figure glued to letters is a code or a time.
  return after?.glued && /\p{L}/u.test(after.said) ? null : { value: Number(word.said), next: at + 1, ordinal: false };
}

/** A year after a date: "2026", "'26". */
export function yearAt(words: readonly Word[], at: number): number | null {
  const word = words[at];
  if (!word || !/^(?:20\d\d|19\d\d)$/.test(word.said))
    return word && /['’]$/.test(word.gap) && /^\d\d$/.test(word.said) ? 2000 + Number(word.said) : null;
  return joined(word) ? Number(word.said) : null;
}

export function inYear(
  words: readonly Word[],
  at: number,
  { month, day }: { month: number; day: number },
  { today }: DayContext,
): DayRead | null {
  const year = yearAt(words, at);
  if (year !== null) return one(dayOf(year, month, day), at + 1);
  if (/^(?:next|this) year$/.test(`${said(words, at)} ${said(words, at + 1)}`))
    return one(dayOf(today.getFullYear() + (said(words, at) === 'next' ? 1 : 0), month, day), at + 2);
  return one(dayOfYearAhead(today, month, day), at);
}

/** Days beside today, by how many days they lie from it. */
export const NEAR = new Map([
  ['today', 0],
  ['tonight', 0],
  ['tomorrow', 1],
  ['yesterday', -1],
]);

export const pair = (words: readonly Word[], at: number): string => `${said(words, at)} ${said(words, at + 1)}`;

/** "May", "May 2027", "the month", "next month". `turn` is the same month of the next year or the next month. */
export function namedMonth(
  words: readonly Word[],
  at: number,
  { today }: DayContext,
): (DayRead & { turn?: Days }) | null {
  const month = monthAt(words, at);
  if (month >= 0) {
    const year = yearAt(words, at + 1);
    if (year !== null) return stretch(monthOf(year, month), at + 2);
    const ahead = monthAhead(today, month);
    return { ...stretch(ahead, at + 1), turn: monthOf(ahead.from.getFullYear() + 1, month) };
  }
  const thisMonth = monthOf(today.getFullYear(), today.getMonth());
  const nextMonth = monthOf(today.getFullYear(), today.getMonth() + 1);
  if (saidAll(words, at, 'next month')) return stretch(nextMonth, at + 2);
  if (saidAll(words, at, 'this month')) return stretch(thisMonth, at + 2);
  if (saidAll(words, at, 'the month')) return { ...stretch(thisMonth, at + 2), turn: nextMonth };
  if (saidAll(words, at, 'the following month')) return stretch(nextMonth, at + 3);
  return null;
}
