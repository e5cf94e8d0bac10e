import { UTCDate } from '@date-fns/utc';
import { monthOf } from '../../../recognise/finders/dates/calendar.js';
import type { DayReader } from '../../dayReader.js';
import { said, stretch } from './parts.js';

const SEASONS: ReadonlyMap<string, number> = new Map([
  ['spring', 2],
  ['summer', 5],
  ['autumn', 8],
  ['fall', 8],
  ['winter', 11],
]);

/** "this summer", "next spring", "in the autumn": three months. */
export const season: DayReader = (words, at, { today }) => {
  const which = said(words, at);
  const month = SEASONS.get(said(words, at + 1));
  if (month === undefined || !/^(?:this|next|the|in)$/.test(which) || (which === 'the' && said(words, at - 1) !== 'in'))
    return null;
  if (said(words, at + 1) === 'fall' && which === 'the') return null;
  const year =
    today.getFullYear() + (today.getMonth() > month + 2 || (which === 'next' && today.getMonth() >= month) ? 1 : 0);
  return stretch({ from: new UTCDate(year, month, 1), to: monthOf(year, month + 2).to }, at + 2);
};
