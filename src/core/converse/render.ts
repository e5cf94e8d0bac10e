import { IntlMessageFormat } from 'intl-messageformat';
import type { Localised } from '../bot/document.js';
import { variants } from '../bot/localised.js';
import { showValue, type SlotValue, type Value } from '../recognise/value.js';

const ISO_DATE = /^\d{4}-\d{2}-\d{2}$/;
const ISO_DATETIME = /^(\d{4}-\d{2}-\d{2})T(\d{2}:\d{2})$/;
const ISO_INTERVAL = /^(\d{4}-\d{2}-\d{2})\/(\d{4}-\d{2}-\d{2})$/;
/** Kinds of ICU message elements, by their numbers. */
const LITERAL_ELEMENT = 0;
/** A number and a plural. */
const NUMBER_ELEMENTS = [2, 6];
const DATE_ELEMENT = 3;
const TIME_ELEMENT = 4;

function sayDate(iso: string, locale: string): string {
  const format = new Intl.DateTimeFormat(locale, { weekday: 'long', day: 'numeric', month: 'long', timeZone: 'UTC' });
  return format.format(new Date(`${iso}T00:00:00Z`));
}

function sayOne(value: Value, locale: string): string {
  if (typeof value === 'number') return new Intl.NumberFormat(locale).format(value);
  if (typeof value === 'object') {
    return new Intl.NumberFormat(locale, { style: 'currency', currency: value.currency }).format(value.amount);
  }
  if (ISO_DATE.test(value)) return sayDate(value, locale);
  const datetime = ISO_DATETIME.exec(value);
  if (datetime) return `${sayDate(datetime[1]!, locale)}, ${datetime[2]!}`;
  const interval = ISO_INTERVAL.exec(value);
  if (interval) return `${sayDate(interval[1]!, locale)} – ${sayDate(interval[2]!, locale)}`;
  return showValue(value);
}

/** A value as it is said to a customer. */
function sayValue(value: SlotValue, locale: string): string {
  if (!Array.isArray(value)) return sayOne(value, locale);
  return new Intl.ListFormat(locale, { type: 'conjunction' }).format(value.map((item) => sayOne(item, locale)));
}

interface Element {
  type: number;
  value?: unknown;
}

function argumentFor(value: SlotValue, wantsDate: boolean, locale: string): string | number | Date {
  if (typeof value === 'number') return value;
  if (wantsDate && typeof value === 'string' && (ISO_DATE.test(value) || ISO_DATETIME.test(value))) {
    return new Date(ISO_DATE.test(value) ? `${value}T00:00:00Z` : `${value}:00Z`);
  }
  return sayValue(value, locale);
}

/**
 * Puts values into an ICU message. Slots that hold nothing read as empty. Where several values stand in the place of
 * one number, they are said as they are.
 */
export function renderMessage(
  message: string,
  values: Record<string, SlotValue>,
  language: string,
  region: string,
): string {
  const locale = language.includes('-') ? language : `${language}-${region}`;
  const format = new IntlMessageFormat(message, locale, undefined, {
    formatters: {
      getNumberFormat: (locales, options) => new Intl.NumberFormat(locales, options),
      getDateTimeFormat: (locales, options) => new Intl.DateTimeFormat(locales, { ...options, timeZone: 'UTC' }),
      getPluralRules: (locales, options) => new Intl.PluralRules(locales, options),
    },
  });
  const args: Record<string, string | number | Date> = {};
  let fits = true;
  for (const { type, value: name } of format.getAst() as Element[]) {
    if (type === LITERAL_ELEMENT || typeof name !== 'string') continue;
    const value = values[name];
    if (value !== undefined && typeof value !== 'number' && NUMBER_ELEMENTS.includes(type)) fits = false;
    args[name] = value === undefined ? '' : argumentFor(value, type === DATE_ELEMENT || type === TIME_ELEMENT, locale);
  }
  for (const [name, value] of Object.entries(values)) args[name] ??= argumentFor(value, false, locale);
  return tidy(fits ? String(format.format(args)) : inPlace(message, values, locale));
}

/** The message with each value where its braces stand, for values that a typed argument cannot take. */
function inPlace(message: string, values: Record<string, SlotValue>, locale: string): string {
  return message.replace(/\{\s*([\p{L}_][\p{L}\p{N}_-]*)[^{}]*\}/gu, (_, name: string) =>
    values[name] === undefined ? '' : sayValue(values[name], locale),
  );
}

function tidy(text: string): string {
  return text
    .replace(/ {2,}/g, ' ')
    .replace(/ ([.,;?!])/g, '$1')
    .trim();
}

/** The wording for a turn: variants take turns, or follow the tries where `at` counts them. */
export function chooseVariant(text: Localised | undefined, language: string, at: number, last = false): string | null {
  const all = variants(text, language);
  if (all.length === 0) return null;
  return all[last ? Math.min(at, all.length - 1) : at % all.length]!;
}
