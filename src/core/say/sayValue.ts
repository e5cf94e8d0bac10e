import { showValue, type SlotValue, type Value } from '../recognise/value.js';

const DAY = /^\d{4}-\d{2}-\d{2}$/;
const MOMENT = /^(\d{4}-\d{2}-\d{2})T(\d{2}:\d{2})$/;
const TIME = /^\d{2}:\d{2}$/;

/** The locale of a language in a country; English where no such language is known. */
export function localeOf(language: string, region: string): string {
  for (const tag of [language.includes('-') ? language : `${language}-${region}`, language]) {
    try {
      return Intl.getCanonicalLocales(tag)[0] ?? 'en';
    } catch {
      // Not a tag of any language; the next is tried.
    }
  }
  return 'en';
}

/** Parts of the day by how they are kept as an interval, and the words that lead in to them. */
const PERIODS: ReadonlyMap<string, string> = new Map([
  ['06:00/12:00', 'the morning'],
  ['12:00/14:00', 'lunchtime'],
  ['12:00/18:00', 'the afternoon'],
  ['18:00/22:00', 'the evening'],
  ['20:00/23:59', 'the night'],
]);

const isEnglish = (locale: string): boolean => locale === 'en' || locale.startsWith('en-');

export const isDay = (value: unknown): value is string => typeof value === 'string' && DAY.test(value);

/** The day or moment as a `Date` in UTC whose parts are those written; `null` for anything else. */
export function asDate(value: Value): Date | null {
  if (typeof value !== 'string') return null;
  const iso = DAY.test(value)
    ? `${value}T00:00Z`
    : MOMENT.test(value)
      ? `${value}Z`
      : TIME.test(value)
        ? `1970-01-01T${value}Z`
        : null;
  const date = iso === null ? null : new Date(iso);
  return date && !Number.isNaN(date.getTime()) ? date : null;
}

const formatDate = (date: Date, locale: string, options: Intl.DateTimeFormatOptions): string =>
  new Intl.DateTimeFormat(locale, { ...options, timeZone: 'UTC' }).format(date);

/** A day or a moment said in a given form. */
export const sayDate = formatDate;

function sayPoint(value: string, locale: string): string {
  const date = asDate(value);
  if (!date || TIME.test(value)) return value;
  const day = formatDate(date, locale, { weekday: 'long', day: 'numeric', month: 'long' });
  return DAY.test(value) ? day : `${day}, ${value.slice(-5)}`;
}

/** The two ends of an interval of days, times or moments; `null` for anything else. */
function endsOf(value: SlotValue): [string, string] | null {
  if (typeof value !== 'string') return null;
  const ends = value.split('/');
  return ends.length === 2 && ends.every((end) => asDate(end) !== null) ? (ends as [string, string]) : null;
}

function sayOne(value: Value, locale: string): string {
  if (typeof value === 'number') return new Intl.NumberFormat(locale).format(value);
  if (typeof value === 'object') return sayMoney(value, locale);
  const ends = endsOf(value);
  if (!ends) return asDate(value) ? sayPoint(value, locale) : showValue(value);
  const period = PERIODS.get(value);
  if (period !== undefined && isEnglish(locale)) return period.replace(/^the /, '');
  const [from, to] = ends;
  return from.slice(0, 11) === to.slice(0, 11) && from.length > 10
    ? `${sayPoint(from, locale)}–${to.slice(-5)}`
    : `${sayPoint(from, locale)} – ${sayPoint(to, locale)}`;
}

function sayMoney({ amount, currency }: { amount: number; currency: string }, locale: string): string {
  try {
    return new Intl.NumberFormat(locale, { style: 'currency', currency }).format(amount);
  } catch {
    return showValue({ amount, currency });
  }
}

/** A value as it is said to a customer: dates and sums in words, several values as a list. Never throws. */
export function sayValue(value: SlotValue, locale: string): string {
  if (!Array.isArray(value)) return sayOne(value, locale);
  return new Intl.ListFormat(locale, { type: 'conjunction' }).format(value.map((item) => sayOne(item, locale)));
}

/**
 * The words before a stretch of days or times, fitted to it: "on" and "at" name a point, so "on Monday – Sunday" is
 * "from Monday to Sunday" and "at morning" is "in the morning". English only.
 */
export function fitStretch(before: string, value: SlotValue, locale: string): { before: string; said: string } | null {
  const ends = endsOf(value);
  if (!ends || !isEnglish(locale)) return null;
  const lead = /(?:^|\s)(on|at)\s+$/iu.exec(before);
  if (!lead) return null;
  const kept = before.slice(0, before.length - lead[0].length) + (/^\s/.test(lead[0]) ? ' ' : '');
  const period = PERIODS.get(value as string);
  if (period !== undefined) return { before: kept, said: period.startsWith('the') ? `in ${period}` : `at ${period}` };
  return { before: kept, said: `from ${ends.map((end) => sayPoint(end, locale)).join(' to ')}` };
}
