import { dayOf } from '../../../recognise/finders/dates/calendar.js';
import type { Word } from '../../word.js';
import { MONTHS } from '../calendar.js';

/** The most days that each month has in any year. */
const MOST_DAYS = [31, 29, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];

const monthOf = (word: Word | undefined): number => (word?.said === 'mar' ? 2 : MONTHS.indexOf(word?.said ?? ''));

/** The day of a month in figures that begins at a word: "31", "31st". */
function figureAt(words: readonly Word[], at: number): { day: number; next: number } | null {
  const word = words[at];
  if (!word || !/^\d{1,2}$/.test(word.said)) return null;
  const ending = words[at + 1];
  return { day: Number(word.said), next: ending?.glued && /^(?:st|nd|rd|th)$/.test(ending.said) ? at + 2 : at + 1 };
}

/** Where the words name a day that no year has, or not the one named: "31 February", "29 February 2027". Index after them, or -1. */
export function noDayAt(words: readonly Word[], at: number): number {
  const figure = figureAt(words, at);
  if (figure) {
    const place = words[figure.next]?.said === 'of' ? figure.next + 1 : figure.next;
    const month = monthOf(words[place]);
    const year = /^(?:19|20)\d\d$/.test(words[place + 1]?.said ?? '') ? Number(words[place + 1]!.said) : null;
    if (month >= 0 && year !== null && figure.day < 40 && dayOf(year, month, figure.day) === null) return place + 2;
    return month >= 0 && (figure.day > MOST_DAYS[month]! || figure.day === 0) && figure.day < 40 ? place + 1 : -1;
  }
  const month = monthOf(words[at]);
  if (month < 0) return -1;
  const after = figureAt(words, words[at + 1]?.said === 'the' ? at + 2 : at + 1);
  const isYear = after !== null && /['’]$/.test(words[after.next - 1]?.gap ?? '');
  return after && !isYear && after.day > MOST_DAYS[month]! && after.day < 40 ? after.next : -1;
}
