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

export const notBefore = (date: Date, today: Date): boolean => isoDate(date) >= isoDate(today);

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

/** Rules that give a day of every year: the same date, so many days from Easter, the nth weekday of a month. */
export const fixed = (month: number, day: number) => (year: number) => new UTCDate(year, month, day);
export const fromEaster = (days: number) => (year: number) => addDays(easter(year), days);
export const nth = (month: number, n: number, weekday: number) => (year: number) =>
  nthWeekday(monthOf(year, month), n, weekday)!;
