import { lastWeekday, nextWeekday } from '../../../recognise/finders/dates/calendar.js';
import type { DayReader } from '../../dayReader.js';
import { said, one, skip, skipThe, weekdayAt } from './parts.js';

/** "the Monday after Easter", "the last Saturday before Christmas". */
export const weekdayBeside: DayReader = (words, at, context) => {
  const from = skip(words, skipThe(words, at), /^(?:first|last|next)$/);
  const day = weekdayAt(words, from);
  const link = said(words, from + 1);
  if (day < 0 || (link !== 'after' && link !== 'before')) return null;
  const other = context.read(words, from + 2, context);
  if (!other) return null;
  return one(link === 'after' ? nextWeekday(other.to, day) : lastWeekday(other.from, day), other.next);
};
