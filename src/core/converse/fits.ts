import { findEntity, kindOf, type BotDocument, type Slot } from '../bot/document.js';
import { languageOf } from '../language/index.js';
import type { Language } from '../language/language.js';
import { homeCurrency } from '../recognise/finders/money.js';
import { goneBy } from './past.js';
import { dayOf, dayOfMonthAhead, isoDate, readLocalTime } from '../recognise/finders/dates/calendar.js';
import { wordsOfText } from '../recognise/finders/words.js';
import type { SlotValue } from '../recognise/value.js';
import { isDay } from '../say/sayValue.js';
import { tokenise } from '../text/tokens.js';

/** A figure that is all a message says. */
export interface BareNumber {
  value: number;
  /** The words of the figure. */
  words: string;
  /** The figure as it was written, where it was. */
  digits: string | null;
  /** Whether it names one of several rather than an amount: "the 15", "the 15th". */
  named: boolean;
}

/** The figure that is all that some words say; `null` where they say more, or none. */
export function bareNumber(text: string, language: Language): BareNumber | null {
  if (/[-−]\s*\d/u.test(text)) return null;
  const { readCount, readOrdinal } = language.numbers;
  const words = wordsOfText(tokenise(text), language);
  const is = (at: number) => language.figures.isAround(words[at]!.said) && !/^\d/.test(words[at]!.said);
  let at = 0;
  while (at < words.length && is(at) && readCount(words, at) === null) at++;
  // A figure glued to a letter is a code: "A6".
  if (at >= words.length || (words[at]!.glued && at > 0)) return null;
  const ordinal = readOrdinal(words, at);
  const counted = ordinal ?? readCount(words, at);
  if (!counted) return null;
  for (let next = counted.next; next < words.length; next++) if (!is(next)) return null;
  const digits = /^\d+$/.test(words[at]!.said) && counted.next === at + 1 ? words[at]!.said : null;
  const said = text.slice(words[at]!.start, words[counted.next - 1]!.end);
  return {
    value: counted.value,
    words: said,
    digits,
    named: ordinal !== null || (digits !== null && language.figures.namesOne(words[at - 1]?.said ?? '')),
  };
}

/** Hours and minutes as they are written: "5.30". */
export const CLOCK = /(?<![\d.:£$€])(\d{1,2})[.:]([0-5]\d)(?![\d.:])/u;

const pad = (number: number): string => String(number).padStart(2, '0');

/** A time of day for a bare figure: of the working day where nothing tells the half ("4" is four in the afternoon). */
export function timeFor({ value, digits, words }: Omit<BareNumber, 'named'>): string | undefined {
  const clock = CLOCK.exec(words);
  const [hour, minute] = clock
    ? [Number(clock[1]), Number(clock[2])]
    : digits !== null && digits.length > 2
      ? [Math.floor(value / 100), value % 100]
      : [value, 0];
  if (!Number.isInteger(hour) || hour < 0 || hour > 24 || minute > 59) return undefined;
  const late = hour >= 1 && hour <= 7 && !(digits ?? '').startsWith('0');
  return `${pad((late ? hour + 12 : hour) % 24)}:${pad(minute)}`;
}

const EVENING = '17:00';

/** Of an hour said without its half of the day, the one in the evening where an evening is held. */
export function timeNear(time: string | undefined, held: SlotValue | undefined): string | undefined {
  if (time === undefined || typeof held !== 'string' || time >= '12:00' || time < '08:00') return time;
  const [from, to] = held.split('/') as [string, string?];
  const later = `${pad(Number(time.slice(0, 2)) + 12)}${time.slice(2)}`;
  return from >= EVENING && (to === undefined || later <= to) ? later : time;
}

/** A code with its letters before the figures: those that the customer may leave out are put back. */
const LEADING_LETTERS = /^\^?([\p{L}]{1,6})(?:\(\?:)?((?:\\?[-/ .]))?\)?\??\\d\{(\d+)\}\$?$/u;

function codeFor(pattern: string, digits: string | null): string | undefined {
  const shape = LEADING_LETTERS.exec(pattern);
  if (!shape || digits?.length !== Number(shape[3])) return undefined;
  return `${shape[1]}${(shape[2] ?? '').replace('\\', '')}${digits}`;
}

/** The day of the month that is meant: of the month of the day that it corrects, else the next there is. */
export function dayNamed(day: number, today: string, held?: SlotValue): string | undefined {
  const month = isDay(held) ? dayOf(Number(held.slice(0, 4)), Number(held.slice(5, 7)) - 1, day) : null;
  if (month && isoDate(month) >= today.slice(0, 10)) return isoDate(month);
  const ahead = dayOfMonthAhead(readLocalTime(today), day);
  return ahead ? isoDate(ahead) : undefined;
}

/**
 * What a bare figure is for a slot; `undefined` where the slot takes none.
 * @param today local ISO time
 * @param held what the slot holds already
 */
export function numberFor(
  document: BotDocument,
  slot: Slot,
  number: BareNumber,
  { today, held }: { today: string | null; held?: SlotValue | undefined },
): SlotValue | undefined {
  const { value, named, digits } = number;
  const kind = kindOf(document, slot);
  // What begins with a nought is a code or the beginning of a telephone number.
  if (kind === 'number') return /^0\d/.test(digits ?? '') ? undefined : value;
  if (kind === 'percent') return value;
  if (kind === 'money')
    return named ? undefined : { amount: value, currency: currencyOf(held) ?? homeCurrency(document.region) };
  if (kind === 'ordinal') return Number.isInteger(value) ? value : undefined;
  if (kind === 'time') return timeNear(timeFor(number), held);
  if (kind === 'date') {
    const isDay = Number.isInteger(value) && value >= 1 && value <= 31 && (named || digits !== null);
    const day = isDay && today !== null ? dayNamed(value, today, held) : undefined;
    return day === undefined ? undefined : goneBy(document, slot, { text: String(value), value: day }, today);
  }
  if (kind === 'pattern') return named ? undefined : codeFor(findEntity(document, slot.entity)?.pattern ?? '', digits);
  return kind === 'list' ? onlyValue(document, slot, digits ?? String(value)) : undefined;
}

const currencyOf = (held: SlotValue | undefined): string | undefined =>
  typeof held === 'object' && !Array.isArray(held) ? held.currency : undefined;

/** The content words of an answer, folded and stemmed. */
export function contentStems(text: string, { figures, spelling }: Language): string[] {
  return tokenise(text)
    .tokens.filter(({ norm }) => !figures.namesNoValue(norm))
    .map(({ norm }) => spelling.stem(norm));
}

/**
 * The one value of a list that an answer can only be, though it says it with a word of it alone or in another form:
 * "the climbing kind", "the family one". `undefined` where none or several could be.
 */
export function onlyValue(document: BotDocument, slot: Slot, text: string): string | undefined {
  const language = languageOf(document);
  const words = contentStems(text, language);
  if (words.length === 0 || words.length > 3) return undefined;
  const fits = (findEntity(document, slot.entity)?.values ?? []).filter(({ value, synonyms }) =>
    [value, ...synonyms].some((phrase) => {
      const own = new Set(tokenise(phrase).tokens.map(({ norm }) => language.spelling.stem(norm)));
      return words.every((word) => own.has(word));
    }),
  );
  return fits.length === 1 ? fits[0]!.value : undefined;
}

/** Whether a word is one of those that the values of a list are said with. */
export function hasWord(document: BotDocument, slot: Slot, word: string): boolean {
  const { stem } = languageOf(document).spelling;
  return (findEntity(document, slot.entity)?.values ?? []).some(({ value, synonyms }) =>
    [value, ...synonyms].some((phrase) => tokenise(phrase).tokens.some(({ norm }) => stem(norm) === stem(word))),
  );
}

/** Whether some words say anything at all beside fillers. */
export const saysSomething = (text: string, language: Language): boolean => contentStems(text, language).length > 0;
