import { UTCDate } from '@date-fns/utc';
import { dayOf, dayOfMonthAhead } from '../../../recognise/finders/dates/calendar.js';
import type { DayContext, DayRead, DayReader } from '../../dayReader.js';
import { joined, type Word } from '../../word.js';
import { said, one, saidAll, skip, skipThe, monthAt, monthDay, inYear } from './parts.js';

/** "13 March", "the 3rd of May 2026". */
export const dayAndMonth: DayReader = (words, at, context) => {
  const day = monthDay(words, skipThe(words, at));
  if (!day) return null;
  const month = monthAt(words, skip(words, day.next, /^of$/));
  const place = skip(words, day.next, /^of$/);
  return month < 0 || !joined(words[place])
    ? monthOfDay(words, day, context)
    : inYear(words, place + 1, { month, day: day.value }, context);
};

/** "the 9th of next month", "the 3rd of this month". */
function monthOfDay(
  words: readonly Word[],
  day: { value: number; next: number },
  { today }: DayContext,
): DayRead | null {
  if (said(words, day.next) !== 'of') return null;
  if (saidAll(words, day.next + 1, 'the month')) return one(dayOfMonthAhead(today, day.value), day.next + 3);
  const ahead = saidAll(words, day.next + 1, 'next month') ? 1 : saidAll(words, day.next + 1, 'this month') ? 0 : -1;
  if (ahead < 0) return null;
  return one(
    dayOf(today.getFullYear(), today.getMonth() + ahead, day.value) ??
      new UTCDate(today.getFullYear(), today.getMonth() + ahead, day.value),
    day.next + 3,
  );
}
