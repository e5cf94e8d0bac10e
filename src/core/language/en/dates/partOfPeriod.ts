import { UTCDate } from '@date-fns/utc';
import { addDays, differenceInCalendarDays } from 'date-fns';
import { lastDayOf, monthOf, weekOf } from '../../../recognise/finders/dates/calendar.js';
import type { DayReader } from '../../dayReader.js';
import { said, one, stretch, saidAll, skip, skipThe, namedMonth } from './parts.js';
import { period } from './period.js';

/** "the end of next month", "early next week", "mid March", "the beginning of May", "the end of the week". */
export const partOfPeriod: DayReader = (words, at, context) => {
  if (saidAll(words, at, 'month end'))
    return one(monthOf(context.today.getFullYear(), context.today.getMonth()).to, at + 2);
  const from = skipThe(words, at);
  const name = /^(end|start|beginning|middle|early|late|mid)$/.exec(said(words, from))?.[1];
  if (!name) return null;
  const noun = /^(?:end|start|beginning|middle)$/.test(name);
  const inside = skip(words, from + 1, noun ? /^of$/ : /^(?:in|on|-)$/);
  if (noun && inside === from + 1) return null;
  const { today } = context;
  const place = skipThe(words, inside);
  const whole =
    said(words, place) === 'week'
      ? stretch(weekOf(today), place + 1)
      : said(words, place) === 'year'
        ? stretch(
            { from: new UTCDate(today.getFullYear(), 0, 1), to: new UTCDate(today.getFullYear(), 11, 31) },
            place + 1,
          )
        : (namedMonth(words, inside, context) ??
          namedMonth(words, place, context) ??
          (said(words, place) === 'month'
            ? stretch(monthOf(today.getFullYear(), today.getMonth()), place + 1)
            : null) ??
          period(words, inside, context));
  if (!whole) return null;
  const days = differenceInCalendarDays(whole.to, whole.from) + 1;
  const week = days === 7;
  if (name === 'end') return one(week ? addDays(whole.from, 4) : whole.to, whole.next);
  if (name === 'start' || name === 'beginning') return one(whole.from, whole.next);
  if (week) {
    const [first, last] = name === 'early' ? [0, 1] : name === 'late' ? [3, 4] : [2, 2];
    return stretch({ from: addDays(whole.from, first), to: addDays(whole.from, last) }, whole.next);
  }
  if (days > 31) return null;
  if (name === 'middle' || name === 'mid') return one(addDays(whole.from, 14), whole.next);
  const [first, last] = name === 'early' ? [0, 9] : [20, lastDayOf(whole) - 1];
  return stretch({ from: addDays(whole.from, first), to: addDays(whole.from, last) }, whole.next);
};
