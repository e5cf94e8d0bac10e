import { UTCDate } from '@date-fns/utc';
import { monthAhead, monthOf, weekendOf, weekOf } from '../../../recognise/finders/dates/calendar.js';
import type { DayReader } from '../../dayReader.js';
import { joined } from '../../word.js';
import { said, stretch, saidAll, skipThe, monthAt, yearAt, namedMonth } from './parts.js';

/** "this week", "next weekend", "next month", "in May", "the week after next", "the week of the 9th". */
export const period: DayReader = (words, at, context) => {
  const { today } = context;
  const from = skipThe(words, at);
  const which = said(words, from);
  const what = said(words, from + 1);
  const ahead =
    which === 'next' || which === 'following'
      ? 1
      : which === 'this' || which === 'coming'
        ? 0
        : which === 'last'
          ? -1
          : null;
  if (ahead !== null) {
    const place = which === 'this' && what === 'coming' ? from + 2 : from + 1;
    const unit = said(words, place);
    if (unit === 'week') return stretch(weekOf(today, ahead), place + 1);
    if (unit === 'weekend') return stretch(weekendOf(today, ahead), place + 1);
    if (unit === 'month') return stretch(monthOf(today.getFullYear(), today.getMonth() + ahead), place + 1);
    if (unit === 'year')
      return stretch(
        { from: new UTCDate(today.getFullYear() + ahead, 0, 1), to: new UTCDate(today.getFullYear() + ahead, 11, 31) },
        place + 1,
      );
    if (monthAt(words, place) >= 0 && ahead >= 0) {
      const month = monthAhead(today, monthAt(words, place));
      return stretch(month, place + 1);
    }
  }
  if (saidAll(words, from, 'week after next')) return stretch(weekOf(today, 2), from + 3);
  if (saidAll(words, from, 'weekend after next')) return stretch(weekendOf(today, 2), from + 3);
  if (saidAll(words, from, 'month after next'))
    return stretch(monthOf(today.getFullYear(), today.getMonth() + 2), from + 3);
  if (saidAll(words, from, 'weekend of')) {
    const day = context.read(words, from + 2, context);
    return day && stretch(weekendOf(day.from), day.next);
  }
  if (saidAll(words, from, 'week after') && from > at && !joined(words[from + 2]))
    return stretch(weekOf(today, 1), from + 2);
  if (saidAll(words, from, 'weekend'))
    return from > at || said(words, at - 1) === 'at' ? stretch(weekendOf(today), from + 1) : null;
  const commencing = which === 'w' && what === 'c' && words[from + 1]!.gap === '/';
  if (commencing || (which === 'week' && /^(?:of|commencing|beginning|starting)$/.test(what))) {
    const day = context.read(words, from + 2, context);
    return day && stretch(weekOf(day.from), day.next);
  }
  const month = monthAt(words, at);
  const certain =
    (month >= 0 && month !== 2 && month !== 4 && said(words, at) !== 'mar') ||
    /^(?:in|during|for|by|until|till|before|since|of|from|early|late|mid)$/.test(said(words, at - 1)) ||
    yearAt(words, at + 1) !== null;
  return month >= 0 && certain ? namedMonth(words, at, context) : null;
};
