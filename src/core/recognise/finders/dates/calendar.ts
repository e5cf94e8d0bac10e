import { UTCDate } from '@date-fns/utc';
import { addDays, addMonths, addWeeks, endOfMonth, format, getDay, getDaysInMonth, startOfWeek } from 'date-fns';

/** A stretch of days, both ends in it. */
export interface Days {
  from: Date;
  to: Date;
}

export const isoDate = (date: Date): string => format(date, 'yyyy-MM-dd');

const LAST_YEAR = 9999;

/** Whether there is such a day, and a year of four figures has it. */
export const exists = (day: Date): boolean =>
  !Number.isNaN(day.getTime()) && day.getFullYear() <= LAST_YEAR && day.getFullYear() > 0;

/** A local ISO time as a `Date` whose local parts are those written. */
export function readLocalTime(now: string): Date {
  const [date = '', time = '00:00'] = now.split('T');
  const [year, month, day] = date.split('-').map(Number);
  const [hour, minute] = time.split(':').map(Number);
  return new UTCDate(year ?? 1970, (month ?? 1) - 1, day ?? 1, hour ?? 0, minute ?? 0);
}

/** The day of a month of a year, or `null` where it has no such day. Years of two figures are of this century. */
export function dayOf(year: number, month: number, day: number): Date | null {
  const full = year < 100 ? 2000 + year : year;
  const date = new UTCDate(full, month, day);
  return date.getFullYear() === full && date.getMonth() === month && date.getDate() === day ? date : null;
}

const notBefore = (date: Date, today: Date): boolean => isoDate(date) >= isoDate(today);

/** The next day of that name that is not before today; the day itself counts. */
export function dayOfYearAhead(today: Date, month: number, day: number): Date | null {
  for (let year = today.getFullYear(); year < today.getFullYear() + 8; year++) {
    const date = dayOf(year, month, day);
    if (date && notBefore(date, today)) return date;
  }
  return null;
}

/** The day of this month or the next that has it, not before today. */
export function dayOfMonthAhead(today: Date, day: number): Date | null {
  for (let month = 0; month < 12; month++) {
    const date = new UTCDate(today.getFullYear(), today.getMonth() + month, day);
    if (date.getDate() === day && notBefore(date, today)) return date;
  }
  return null;
}

/** The first such weekday after a day (never that day itself). */
export const nextWeekday = (from: Date, weekday: number): Date => addDays(from, ((weekday - getDay(from) + 6) % 7) + 1);

/** The last such weekday before a day (never that day itself). */
export const lastWeekday = (from: Date, weekday: number): Date =>
  addDays(from, -(((getDay(from) - weekday + 6) % 7) + 1));

const weekStart = (day: Date): Date => startOfWeek(day, { weekStartsOn: 1 });

/** A calendar week, Monday to Sunday. @param ahead 0 for that of the day, 1 for the next */
export function weekOf(day: Date, ahead = 0): Days {
  const from = addWeeks(weekStart(day), ahead);
  return { from, to: addDays(from, 6) };
}

/** That weekday in a calendar week; weeks begin on Monday. */
export const weekdayInWeek = (day: Date, ahead: number, weekday: number): Date =>
  addDays(weekOf(day, ahead).from, (weekday + 6) % 7);

/** Saturday and Sunday of a calendar week. On a Sunday "this weekend" is that of the day. */
export function weekendOf(day: Date, ahead = 0): Days {
  const from = weekdayInWeek(day, ahead, 6);
  return { from, to: addDays(from, 1) };
}

export function monthOf(year: number, month: number): Days {
  const from = new UTCDate(year, month, 1);
  return { from, to: endOfMonth(from) };
}

/** The month of that name that is not over yet. */
export function monthAhead(today: Date, month: number): Days {
  const year = today.getFullYear() + (month < today.getMonth() ? 1 : 0);
  return monthOf(year, month);
}

/** The nth such weekday of a month; from its end where n is negative. `null` where it has none. */
export function nthWeekday({ from, to }: Days, n: number, weekday: number): Date | null {
  if (n < 0) return addWeeks(addDays(to, -((getDay(to) - weekday + 7) % 7)), n + 1);
  const date = addWeeks(addDays(from, (weekday - getDay(from) + 7) % 7), n - 1);
  return date <= to ? date : null;
}

/** Easter Sunday (Meeus, Jones and Butcher's rule for the Gregorian calendar, 1876). */
function easter(year: number): Date {
  const a = year % 19;
  const b = Math.floor(year / 100);
  const c = year % 100;
  const h = (19 * a + b - Math.floor(b / 4) - Math.floor((b - Math.floor((b + 8) / 25) + 1) / 3) + 15) % 30;
  const l = (32 + 2 * (b % 4) + 2 * Math.floor(c / 4) - h - (c % 4)) % 7;
  const m = Math.floor((a + 11 * h + 22 * l) / 451);
  const month = Math.floor((h + l - 7 * m + 114) / 31);
  return new UTCDate(year, month - 1, ((h + l - 7 * m + 114) % 31) + 1);
}

export function addUnits(day: Date, count: number, unit: 'day' | 'week' | 'fortnight' | 'month' | 'year'): Date {
  switch (unit) {
    case 'day':
      return addDays(day, count);
    case 'week':
      return addWeeks(day, count);
    case 'fortnight':
      return addWeeks(day, 2 * count);
    case 'month':
      return addMonths(day, count);
    case 'year':
      return addMonths(day, 12 * count);
  }
}

export const lastDayOf = (month: Days): number => getDaysInMonth(month.from);

const fixed = (month: number, day: number) => (year: number) => new UTCDate(year, month, day);
const fromEaster = (days: number) => (year: number) => addDays(easter(year), days);
const nth = (month: number, n: number, weekday: number) => (year: number) =>
  nthWeekday(monthOf(year, month), n, weekday)!;

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
