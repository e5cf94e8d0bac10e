import { addDays } from 'date-fns';
import type { DayReader } from '../../dayReader.js';
import { said, one, saidAll, skipThe, NEAR } from './parts.js';

export const nearDay: DayReader = (words, at, { today }) => {
  const day = NEAR.get(said(words, at));
  if (day !== undefined) return one(addDays(today, day), at + 1);
  if (saidAll(words, at, 'last night')) return one(addDays(today, -1), at + 2);
  if (said(words, at) === '2' && words[at + 1]?.glued && /^mor{1,2}ow?$/.test(said(words, at + 1)))
    return one(addDays(today, 1), at + 2);
  if (said(words, at) === 'this' && /^(?:morning|afternoon|evening|lunchtime)$/.test(said(words, at + 1)))
    return { from: today, to: today, next: at + 2, withPart: true };
  const from = skipThe(words, at);
  if (saidAll(words, from, 'day after tomorrow')) return one(addDays(today, 2), from + 3);
  if (saidAll(words, from, 'day before yesterday')) return one(addDays(today, -2), from + 3);
  if (saidAll(words, from, 'next day') && from > at) return one(addDays(today, 1), from + 2);
  return null;
};
