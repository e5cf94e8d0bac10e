import { languageNamed } from '../language/index.js';
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
  const period = languageNamed(locale)?.periods.sayPeriod(value) ?? null;
  if (period !== null) return period;
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
 * "from Monday to Sunday" and "at morning" is "in the morning". `null` where they are fine as they are.
 */
export function fitStretch(before: string, value: SlotValue, locale: string): { before: string; said: string } | null {
  const ends = endsOf(value);
  const fitted = ends && languageNamed(locale)?.periods.leadIn.exec(before);
  if (!ends || !fitted) return null;
  const { periods } = languageNamed(locale)!;
  const kept = before.slice(0, before.length - fitted[0].length) + (/^\s/.test(fitted[0]) ? ' ' : '');
  const said =
    periods.sayInPeriod(value as string) ?? periods.fromTo(sayPoint(ends[0], locale), sayPoint(ends[1], locale));
  return { before: kept, said };
}
