import { addDays } from 'date-fns';
import { readCount } from '../numbers.js';
import { addUnits, nextWeekday } from '../../../recognise/finders/dates/calendar.js';
import type { DayRead, DayReader } from '../../dayReader.js';
import { joined, type Word } from '../../word.js';
import { said, one, skip, weekdayAt, unitAt, NEAR, type Unit } from './parts.js';

/** "a week on Thursday", "three weeks tomorrow", "Thursday week", "a fortnight today", "a week from Friday". */
export const weeksOn: DayReader = (words, at, context) => {
  const base = (place: number): DayRead | null => {
    const day = NEAR.get(said(words, place));
    if (day !== undefined) return one(addDays(context.today, day), place + 1);
    const weekday = weekdayAt(words, place);
    return weekday < 0 ? null : one(nextWeekday(context.today, weekday), place + 1);
  };
  const first = base(at);
  if (first && joined(words[first.next])) {
    const unit = said(words, first.next);
    if (unit === 'week' || unit === 'fortnight') return one(addUnits(first.from, 1, unit), first.next + 1);
  }
  const count = weekCount(words, at);
  if (!count) return null;
  const link = skip(words, count.next, /^(?:on|from|after|this)$/);
  const day = base(skip(words, link, /^(?:this|next|coming)$/));
  return day && one(addUnits(day.from, count.value, count.unit), day.next);
};

/** "a week", "two weeks", "a fortnight", and "week" alone before a day. */
function weekCount(words: readonly Word[], at: number): { value: number; unit: Unit; next: number } | null {
  if (said(words, at) === 'week' || said(words, at) === 'fortnight')
    return { value: 1, unit: unitAt(words, at)!, next: at + 1 };
  const article = /^(?:an?|one)$/.test(said(words, at));
  const count = article ? { value: 1, next: at + 1 } : readCount(words, at);
  const unit = count && unitAt(words, count.next);
  return count && unit && unit !== 'day' && Number.isInteger(count.value)
    ? { value: count.value, unit, next: count.next + 1 }
    : null;
}
