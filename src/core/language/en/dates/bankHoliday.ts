import { addDays } from 'date-fns';
import { namedDayAhead } from './namedDays.js';
import type { DayReader } from '../../dayReader.js';
import { said, one, stretch, saidAll, skip, skipThe } from './parts.js';

const BANK_HOLIDAYS = [
  'good friday',
  'easter monday',
  'early may bank holiday',
  'spring bank holiday',
  'august bank holiday',
];

/** "the bank holiday", "bank holiday Monday", "the bank holiday weekend": the next there is. */
export const bankHoliday: DayReader = (words, at, { today, region }) => {
  const from = skip(words, skipThe(words, at), /^(?:next|this|coming)$/);
  if (!saidAll(words, from, 'bank holiday')) return null;
  const monday = said(words, from + 2) === 'monday';
  const weekend = said(words, from + 2) === 'weekend';
  const days = BANK_HOLIDAYS.slice(monday || weekend ? 1 : 0).flatMap(
    (name) => namedDayAhead(today, name, region) ?? [],
  );
  const [first] = days.sort((a, b) => a.getTime() - b.getTime());
  if (!first) return null;
  return weekend ? stretch({ from: addDays(first, -2), to: first }, from + 3) : one(first, from + (monday ? 3 : 2));
};
