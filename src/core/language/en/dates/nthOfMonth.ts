import { addDays, eachDayOfInterval, isWeekend } from 'date-fns';
import { readOrdinal } from '../numbers.js';
import { dayOf, isoDate, nthWeekday, type Days } from '../../../recognise/finders/dates/calendar.js';
import type { DayRead, DayReader } from '../../dayReader.js';
import { said, one, stretch, skipThe, weekdayAt, pair, namedMonth } from './parts.js';

const NTH = /^(?:first|1st|last|second|third|fourth|fifth|2nd|3rd|4th|5th)$/;

/** "the first Monday in May", "the last Friday of the month", "the second Tuesday of next month". */
export const nthOfMonth: DayReader = (words, at, context) => {
  const from = skipThe(words, at);
  const last = said(words, from) === 'last';
  const nth = last
    ? { value: -1, next: from + 1 }
    : NTH.test(said(words, from)) || /^\d$/.test(said(words, from))
      ? readOrdinal(words, from)
      : null;
  if (!nth) return null;
  if (/^(?:working|business)$/.test(said(words, nth.next)) && /^day (?:in|of)$/.test(pair(words, nth.next + 1))) {
    const month = namedMonth(words, nth.next + 3, context);
    return month && one(workingDay(month, nth.value), month.next);
  }
  const day = weekdayAt(words, nth.next);
  const whole = said(words, nth.next) === 'day';
  const weeks = /^(?:week|weekend)$/.test(said(words, nth.next));
  if (day < 0 && !whole && !weeks) return null;
  if (!/^(?:in|of)$/.test(said(words, nth.next + 1))) return null;
  const month = namedMonth(words, nth.next + 2, context);
  if (!month) return null;
  if (whole)
    return one(last ? month.to : dayOf(month.from.getFullYear(), month.from.getMonth(), nth.value), month.next);
  if (weeks) return nthWeek(said(words, nth.next), month, nth.value);
  const found = nthWeekday(month, nth.value, day);
  if (!found) return null;
  const gone = isoDate(found) < isoDate(context.today);
  const later = month.turn && gone ? nthWeekday(month.turn, nth.value, day) : found;
  return one(later, month.next);
};

/** The nth of the days from Monday to Friday; -1 for the last. */
function workingDay({ from, to }: Days, nth: number): Date | null {
  const days = eachDayOfInterval({ start: from, end: to }).filter((day) => !isWeekend(day));
  return days.at(nth < 0 ? nth : nth - 1) ?? null;
}

/** The first week of a month begins on its first day; a weekend is of the month that its Saturday is in. */
function nthWeek(unit: string, month: DayRead, nth: number): DayRead | null {
  if (unit === 'weekend') {
    const saturday = nthWeekday(month, nth, 6);
    return saturday && stretch({ from: saturday, to: addDays(saturday, 1) }, month.next);
  }
  const from = nth < 0 ? addDays(month.to, -6) : addDays(month.from, 7 * (nth - 1));
  return nth > 4 ? null : stretch({ from, to: addDays(from, 6) }, month.next);
}
