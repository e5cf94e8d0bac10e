import { readCount } from '../numbers.js';
import { addUnits } from '../../../recognise/finders/dates/calendar.js';
import type { DayReader } from '../../dayReader.js';
import { said, one, stretch, saidAll, skip, unitAt } from './parts.js';

/** "in three days", "in a week's time", "two weeks from now", "10 days ago", "a month today". */
export const counted: DayReader = (words, at, { today }) => {
  const within = /^(?:in|within)$/.test(said(words, at));
  const from = within ? at + 1 : at;
  const about = skip(words, from, /^(?:about|around|roughly|another)$/);
  const article = /^an?$/.test(said(words, about)) && unitAt(words, about + 1) !== null;
  const count = article ? { value: 1, next: about + 1 } : readCount(words, about);
  const unit = count && unitAt(words, count.next);
  if (!count || !unit || !Number.isInteger(count.value) || count.value > 5000) return null;
  const after = count.next + 1;
  const day = (sign: 1 | -1) => addUnits(today, sign * count.value, unit);
  if (said(words, after) === 'ago') return one(day(-1), after + 1);
  if (said(words, after) === 'time') return one(day(1), after + 1);
  if (saidAll(words, after, 'from now') || saidAll(words, after, 'from today')) return one(day(1), after + 2);
  if (saidAll(words, after, 'today')) return one(day(1), after + 1);
  if (said(words, at) === 'within') return stretch({ from: today, to: day(1) }, after);
  return within ? one(day(1), after) : null;
};
