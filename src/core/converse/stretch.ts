import { addDays, subDays } from 'date-fns';
import { kindOf, type BotDocument, type Form, type Slot } from '../bot/document.js';
import { languageOf } from '../language/index.js';
import type { Language } from '../language/language.js';
import { isoDate, nextWeekday, readLocalTime } from '../recognise/finders/dates/calendar.js';
import { wordsOfText } from '../recognise/finders/words.js';
import type { SlotReading } from '../recognise/slots.js';
import type { SlotValue, Values } from '../recognise/value.js';
import { isDay } from '../say/sayValue.js';
import { tokenise } from '../text/tokens.js';
import { dropHeld, heldOf, putHeld } from '../text/named.js';

/** A message of a form that asks for the two ends of a stretch of days. */
interface Stay {
  text: string;
  /** In text order. */
  readings: readonly SlotReading[];
  /** What the message gives; is filled and put right. */
  given: Values;
  /** What the form holds already. */
  held: Values;
}

/** The slots of both ends, and what is known of each. */
interface Ends {
  first: string;
  last: string;
}

const requiredDays = (document: BotDocument, form: Form): Slot[] =>
  form.slots.filter((slot) => kindOf(document, slot) === 'date' && slot.required);

/** The two days that a form asks for as the ends of a stretch; `null` where it asks for another number of days. */
export function endsOfForm(document: BotDocument, form: Form): [Slot, Slot] | null {
  const days = requiredDays(document, form);
  return days.length === 2 && languageOf(document).stretches.isNameOfLast(days[1]!.name)
    ? (days as [Slot, Slot])
    : null;
}

/** A stretch of days gives its two ends to a form that asks for two days. */
function splitStretch([first, second]: readonly Slot[], { given, held }: Stay): void {
  const value = first && heldOf(given, first.name);
  if (!first || !second || typeof value !== 'string' || !value.includes('/')) return;
  if (heldOf(given, second.name) !== undefined || heldOf(held, second.name) !== undefined) return;
  const [from, to] = value.split('/') as [string, string];
  putHeld(given, first.name, from);
  putHeld(given, second.name, to);
}

/** "Till Monday" is the first Monday after the stretch begins. */
function endAfterFirst({ first, last }: Ends, { readings, given, held }: Stay, { stretches }: Language): void {
  const [from, to] = [heldOf(given, first) ?? heldOf(held, first), heldOf(given, last)];
  const named = readings.some(({ slot, text }) => slot === last && stretches.isWeekday(text));
  if (!named || !isDay(from) || !isDay(to) || to >= from) return;
  const begins = readLocalTime(`${from}T00:00`);
  putHeld(given, last, isoDate(nextWeekday(begins, readLocalTime(`${to}T00:00`).getDay())));
}

/** A word beside a day ("on Friday") tells no end of a stretch. */
const MOST_BESIDE = 1;

/** "The bank holiday", and nothing else: a day alone begins a stretch of which nothing is known. */
function beginWithDay({ first, last }: Ends, { text, readings, given, held }: Stay, { stretches }: Language): void {
  const [day, ...others] = readings.filter(({ slot }) => slot === first || slot === last);
  if (day?.slot !== last || others.length > 0 || heldOf(given, last) === undefined || heldOf(held, first) !== undefined)
    return;
  const beside = `${text.slice(0, day.start)} ${text.slice(day.end)}`;
  if (tokenise(beside).tokens.length > MOST_BESIDE || stretches.leadsToLast(text.slice(0, day.start))) return;
  putHeld(given, first, heldOf(given, last)!);
  dropHeld(given, last);
}

const MOST_NIGHTS = 365;

/** The nights that some words count; `null` where they count none. */
function nightsIn(text: string, language: Language): number | null {
  const words = wordsOfText(tokenise(text), language);
  for (let at = 0; at < words.length; at++) {
    const nights = language.stretches.readNights(words, at)?.value ?? 0;
    if (Number.isInteger(nights) && nights > 0 && nights <= MOST_NIGHTS) return nights;
  }
  return null;
}

/** "For three nights": the last day of a stretch whose first is known. */
function addNights({ first, last }: Ends, { text, given, held }: Stay, language: Language): void {
  const from = heldOf(given, first) ?? heldOf(held, first);
  if (
    heldOf(given, last) !== undefined ||
    (heldOf(held, last) !== undefined && heldOf(given, first) !== undefined) ||
    !isDay(from)
  )
    return;
  const nights = nightsIn(text, language);
  if (nights !== null) putHeld(given, last, isoDate(addDays(readLocalTime(`${from}T00:00`), nights)));
}

/** Takes a day out that would end the stretch before it begins. @returns its slot */
function endsBefore({ first, last }: Ends, { given, held }: Stay): string | null {
  const [from, to] = [heldOf(given, first) ?? heldOf(held, first), heldOf(given, last) ?? heldOf(held, last)];
  // Which end a new day is for, where both are held, is told or asked.
  const isOpen =
    heldOf(held, first) !== undefined &&
    heldOf(held, last) !== undefined &&
    (heldOf(given, first) === undefined || heldOf(given, last) === undefined);
  if (isOpen || typeof from !== 'string' || typeof to !== 'string' || to >= from) return null;
  const wrong = heldOf(given, last) === undefined ? first : last;
  if (heldOf(given, wrong) === undefined) return null;
  dropHeld(given, wrong);
  return wrong;
}

const HALF_A_WEEK = 3;

/** "No, the Sunday": the Sunday next to the day that is held, where that is still to come. */
export function nearHeld(
  reading: SlotReading,
  held: SlotValue | undefined,
  { today, language }: { today: string | null; language: Language },
): SlotReading {
  if (!language.stretches.isOneWeekday(reading.text) || !isDay(held) || !isDay(reading.value) || today === null)
    return reading;
  const from = subDays(readLocalTime(`${held}T00:00`), HALF_A_WEEK + 1);
  const value = isoDate(nextWeekday(from, readLocalTime(`${reading.value}T00:00`).getDay()));
  return value >= today.slice(0, 10) ? { ...reading, value } : reading;
}

/**
 * Gives a message's days to the ends of a stretch that a form asks for.
 * @returns the slot whose day was taken out, for the stretch would end before it begins
 */
export function settleEnds(document: BotDocument, form: Form, stay: Stay): string | null {
  const days = requiredDays(document, form);
  if (days.length === 2) splitStretch(days, stay);
  const slots = endsOfForm(document, form);
  if (!slots) return null;
  const ends = { first: slots[0].name, last: slots[1].name };
  const language = languageOf(document);
  beginWithDay(ends, stay, language);
  addNights(ends, stay, language);
  endAfterFirst(ends, stay, language);
  return endsBefore(ends, stay);
}
