import type { DayReader } from '../../dayReader.js';
import { joined } from '../../word.js';
import { skipThe, monthAt, monthDay, inYear } from './parts.js';

/** "March 13", "May the 3rd, 2026". */
export const monthAndDay: DayReader = (words, at, context) => {
  const month = monthAt(words, at);
  if (month < 0) return null;
  const day = joined(words[at + 1]) ? monthDay(words, skipThe(words, at + 1)) : null;
  return day && inYear(words, day.next, { month, day: day.value }, context);
};
