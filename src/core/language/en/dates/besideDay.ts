import { readCount } from '../numbers.js';
import { addUnits, weekOf } from '../../../recognise/finders/dates/calendar.js';
import type { DayReader } from '../../dayReader.js';
import { said, one, stretch, skipThe, unitAt } from './parts.js';

/** "the day after Christmas", "two days before the 3rd", "a week after Easter". */
export const besideDay: DayReader = (words, at, context) => {
  const from = skipThe(words, at);
  const article = /^(?:an?|the)$/.test(said(words, at)) || said(words, at) === 'day';
  const count = article ? { value: 1, next: said(words, at) === 'day' ? at : at + 1 } : readCount(words, from);
  const unit = count && unitAt(words, count.next);
  if (!count || !unit || !Number.isInteger(count.value)) return null;
  const link = said(words, count.next + 1);
  if (link !== 'after' && link !== 'before') return null;
  const day = context.read(words, count.next + 2, context);
  if (day && said(words, at) === 'the' && unit === 'week')
    return stretch(weekOf(day.from, link === 'after' ? 1 : -1), day.next);
  return day && one(addUnits(day.from, (link === 'after' ? 1 : -1) * count.value, unit), day.next);
};
