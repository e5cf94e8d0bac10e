import { dayOf, dayOfYearAhead } from '../../../recognise/finders/dates/calendar.js';
import type { DayContext, DayReader } from '../../dayReader.js';
import type { Word } from '../../word.js';
import { said, one } from './parts.js';

/** "2026-03-05", "5/3/2026", "5.3.26", "19/09". */
export const figures: DayReader = (words, at, context) => {
  const [a, b, c] = [words[at], words[at + 1], words[at + 2]];
  if (!a) return null;
  const whole = /^(\d{1,2})\.(\d{1,2})\.(\d{2}|\d{4})$/.exec(a.said);
  if (whole) return one(ordered(Number(whole[1]), Number(whole[2]), Number(whole[3]), context), at + 1);
  const isMark = (word: Word | undefined, marks: RegExp) =>
    word !== undefined && marks.test(word.gap) && /^\d+$/.test(word.said);
  if (/^\d{4}$/.test(a.said) && isMark(b, /^[-/]$/) && isMark(c, /^[-/]$/))
    return one(dayOf(Number(a.said), Number(b!.said) - 1, Number(c!.said)), at + 3);
  if (!/^\d{1,2}$/.test(a.said) || !isMark(b, /^[-/.]$/) || !/^\d{1,2}$/.test(b!.said)) return null;
  if (isMark(c, /^[-/.]$/) && /^(?:\d{2}|\d{4})$/.test(c!.said))
    return one(ordered(Number(a.said), Number(b!.said), Number(c!.said), context), at + 3);
  const fraction =
    /^(?:1|2|3)$/.test(a.said) &&
    /^[234]$/.test(b!.said) &&
    !/^(?:on|by|for|until|from|before)$/.test(said(words, at - 1));
  if (b!.gap !== '/' || fraction || (a.said === '24' && b!.said === '7')) return null;
  return one(ordered(Number(a.said), Number(b!.said), null, context), at + 2);
};

/** The day of two figures in the region's order, or in the other where that is the only one that makes a day. */
function ordered(first: number, second: number, year: number | null, { region, today }: DayContext): Date | null {
  const orders =
    region === 'US'
      ? [
          [second, first],
          [first, second],
        ]
      : [
          [first, second],
          [second, first],
        ];
  for (const [day, month] of orders as [number, number][]) {
    if (month < 1 || month > 12) continue;
    const date = year === null ? dayOfYearAhead(today, month - 1, day) : dayOf(year, month - 1, day);
    if (date) return date;
  }
  return null;
}
