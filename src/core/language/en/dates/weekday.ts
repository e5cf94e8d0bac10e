import { dayOfMonthAhead, lastWeekday, nextWeekday, weekdayInWeek } from '../../../recognise/finders/dates/calendar.js';
import type { DayContext, DayRead, DayReader } from '../../dayReader.js';
import { joined, type Word } from '../../word.js';
import { said, one, saidAll, skip, skipThe, weekdayAt, monthAt, unitAt, monthDay } from './parts.js';
import { dayAndMonth } from './dayAndMonth.js';
import { monthAndDay } from './monthAndDay.js';

/** "next Friday", "this coming Friday", "Friday next week", "last Friday", "the Friday after next", "Friday the 13th". */
export const weekday: DayReader = (words, at, context) => {
  const { today } = context;
  const from = skipThe(words, at);
  const which = said(words, from);
  const named = weekdayAt(words, from);
  if (named >= 0) return weekdayAlone(words, from, named, context);
  const after = /^(?:next|this|last|coming|following|past)$/.test(which)
    ? skip(words, from + 1, /^(?:coming|past)$/)
    : -1;
  if (after < 0) return null;
  if (which === 'next' && said(words, after) === 'week') {
    const inWeek = skip(words, after + 1, /^on$/);
    const day = weekdayAt(words, inWeek);
    return day < 0 || !joined(words[inWeek]) ? null : one(weekdayInWeek(today, 1, day), inWeek + 1);
  }
  const day = weekdayAt(words, after);
  if (day < 0) return null;
  if (which === 'last' || which === 'past') return one(lastWeekday(today, day), after + 1);
  if (which === 'next') return one(weekdayInWeek(today, 1, day), after + 1);
  return weekdayAlone(words, after, day, context);
};

function weekdayAlone(words: readonly Word[], at: number, day: number, context: DayContext): DayRead | null {
  const { today } = context;
  const next = at + 1;
  const link = skip(words, next, /^(?:of|in)$/);
  if (saidAll(words, link, 'next week')) return one(weekdayInWeek(today, 1, day), link + 2);
  if (saidAll(words, link, 'this week')) return one(weekdayInWeek(today, 0, day), link + 2);
  if (saidAll(words, next, 'after next')) return one(weekdayInWeek(today, 2, day), next + 2);
  if (saidAll(words, next, 'week after next')) return one(weekdayInWeek(today, 2, day), next + 3);
  if (
    saidAll(words, next, 'next') &&
    !unitAt(words, next + 1) &&
    weekdayAt(words, next + 1) < 0 &&
    monthAt(words, next + 1) < 0
  )
    return one(weekdayInWeek(today, 1, day), next + 1);
  if (saidAll(words, next, 'coming')) return one(nextWeekday(today, day), next + 1);
  if (saidAll(words, next, 'gone') || saidAll(words, next, 'last')) return one(lastWeekday(today, day), next + 1);
  if (joined(words[next])) {
    const figure = skipThe(words, next);
    const dated = dayAndMonth(words, figure, context) ?? monthAndDay(words, figure, context);
    if (dated) return dated;
    const number = monthDay(words, figure);
    if (number?.ordinal) return one(dayOfMonthAhead(today, number.value), number.next);
  }
  return one(nextWeekday(today, day), next);
}
