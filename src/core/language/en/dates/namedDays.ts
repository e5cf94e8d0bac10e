import { addDays } from 'date-fns';
import { fixed, fromEaster, monthOf, notBefore, nth, nthWeekday } from '../../../recognise/finders/dates/calendar.js';

/** Days with a name, as a rule for a year. Where a name means another day in the United States, `us` tells which. */
export const NAMED_DAYS: ReadonlyMap<string, { day: (year: number) => Date; us?: (year: number) => Date }> = new Map([
  ['new years day', { day: fixed(0, 1) }],
  ['new year day', { day: fixed(0, 1) }],
  ['new year', { day: fixed(0, 1) }],
  ['new years eve', { day: fixed(11, 31) }],
  ['new year eve', { day: fixed(11, 31) }],
  ['hogmanay', { day: fixed(11, 31) }],
  ['burns night', { day: fixed(0, 25) }],
  ['valentines day', { day: fixed(1, 14) }],
  ['valentines', { day: fixed(1, 14) }],
  ['st davids day', { day: fixed(2, 1) }],
  ['st patricks day', { day: fixed(2, 17) }],
  ['april fools day', { day: fixed(3, 1) }],
  ['st georges day', { day: fixed(3, 23) }],
  ['pancake day', { day: fromEaster(-47) }],
  ['shrove tuesday', { day: fromEaster(-47) }],
  ['ash wednesday', { day: fromEaster(-46) }],
  ['mothering sunday', { day: fromEaster(-21) }],
  ['mothers day', { day: fromEaster(-21), us: nth(4, 2, 0) }],
  ['palm sunday', { day: fromEaster(-7) }],
  ['maundy thursday', { day: fromEaster(-3) }],
  ['good friday', { day: fromEaster(-2) }],
  ['easter saturday', { day: fromEaster(-1) }],
  ['easter sunday', { day: fromEaster(0) }],
  ['easter day', { day: fromEaster(0) }],
  ['easter monday', { day: fromEaster(1) }],
  ['easter', { day: fromEaster(0) }],
  ['may day', { day: fixed(4, 1) }],
  ['early may bank holiday', { day: nth(4, 1, 1) }],
  ['may bank holiday', { day: nth(4, 1, 1) }],
  ['spring bank holiday', { day: nth(4, -1, 1) }],
  ['whitsun', { day: fromEaster(49) }],
  ['whit sunday', { day: fromEaster(49) }],
  ['whit monday', { day: fromEaster(50) }],
  ['memorial day', { day: nth(4, -1, 1) }],
  ['fathers day', { day: nth(5, 3, 0) }],
  ['midsummers day', { day: fixed(5, 24) }],
  ['midsummer', { day: fixed(5, 24) }],
  ['independence day', { day: fixed(6, 4) }],
  ['august bank holiday', { day: nth(7, -1, 1) }],
  ['summer bank holiday', { day: nth(7, -1, 1) }],
  ['labor day', { day: nth(8, 1, 1) }],
  ['labour day', { day: nth(8, 1, 1) }],
  ['columbus day', { day: nth(9, 2, 1) }],
  ['halloween', { day: fixed(9, 31) }],
  ['bonfire night', { day: fixed(10, 5) }],
  ['guy fawkes night', { day: fixed(10, 5) }],
  ['remembrance day', { day: fixed(10, 11) }],
  ['veterans day', { day: fixed(10, 11) }],
  ['remembrance sunday', { day: nth(10, 2, 0) }],
  ['thanksgiving day', { day: nth(10, 4, 4) }],
  ['thanksgiving', { day: nth(10, 4, 4) }],
  ['black friday', { day: (year: number) => addDays(nthWeekday(monthOf(year, 10), 4, 4)!, 1) }],
  ['christmas eve', { day: fixed(11, 24) }],
  ['christmas day', { day: fixed(11, 25) }],
  ['christmas', { day: fixed(11, 25) }],
  ['xmas eve', { day: fixed(11, 24) }],
  ['xmas day', { day: fixed(11, 25) }],
  ['xmas', { day: fixed(11, 25) }],
  ['boxing day', { day: fixed(11, 26) }],
]);

/** The next day of that name, not before today. */
export function namedDayAhead(today: Date, name: string, region: string): Date | null {
  const rule = NAMED_DAYS.get(name);
  if (!rule) return null;
  const day = (region === 'US' && rule.us) || rule.day;
  const thisYear = day(today.getFullYear());
  return notBefore(thisYear, today) ? thisYear : day(today.getFullYear() + 1);
}
