import { UTCDate } from '@date-fns/utc';
import { NAMED_DAYS, namedDayAhead } from './namedDays.js';
import type { DayReader } from '../../dayReader.js';
import { joined } from '../../word.js';
import { said, one, skip, skipThe, yearAt } from './parts.js';

const FIRST_OF_NAMES: ReadonlySet<string> = new Set([...NAMED_DAYS.keys()].map((name) => name.split(' ')[0]!));

export const namedDay: DayReader = (words, at, context) => {
  const from = skip(words, skipThe(words, at), /^(?:this|next|coming)$/);
  if (!FIRST_OF_NAMES.has(said(words, from))) return null;
  for (let length = 4; length >= 1; length--) {
    const name = words.slice(from, from + length);
    if (name.length < length || name.slice(1).some((word) => !joined(word))) continue;
    const phrase = name.map((word) => word.said).join(' ');
    if (!NAMED_DAYS.has(phrase)) continue;
    const year = yearAt(words, from + length);
    const day = namedDayAhead(year === null ? context.today : new UTCDate(year, 0, 1), phrase, context.region);
    return one(day, from + length + (year === null ? 0 : 1));
  }
  return null;
};
