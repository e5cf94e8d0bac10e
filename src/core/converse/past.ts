import { subMonths, subWeeks } from 'date-fns';
import { kindOf, type BotDocument, type Slot } from '../bot/document.js';
import { allWordings } from '../bot/localised.js';
import { languageOf } from '../language/index.js';
import type { Language } from '../language/language.js';
import { isoDate, readLocalTime } from '../recognise/finders/dates/calendar.js';
import type { Value } from '../recognise/value.js';
import { isDay } from '../say/sayValue.js';

const wordsOf = (slot: Slot): string[] => [
  slot.name.replace(/[_-]/g, ' '),
  slot.entity.replace(/[_-]/g, ' '),
  ...allWordings(slot.prompts),
];

/** Whether a slot may ask for a day gone by. */
export const mayBePast = (slot: Slot, { values }: Language): boolean =>
  allWordings(slot.prompts).length === 0 || wordsOf(slot).some((words) => values.isOfThePast(words));

/** A value with the words it was said in. */
interface Said {
  text: string;
  value: Value;
}

/** "It was missed on Tuesday", "on the 28th": where a slot asks for what has happened, the last there was. */
export function goneBy(
  document: BotDocument,
  slot: Slot | undefined,
  { text, value }: Said,
  today: string | null,
): Value {
  if (!slot || kindOf(document, slot) !== 'date' || today === null || !isDay(value)) return value;
  const now = today.slice(0, 10);
  const { stretches, values } = languageOf(document);
  if (value <= now || !wordsOf(slot).some((words) => values.hasHappened(words))) return value;
  const day = readLocalTime(`${value}T00:00`);
  const weekday = stretches.isOneWeekday(text);
  if (!weekday && !stretches.dayAlone.test(text)) return value;
  const before = isoDate(weekday ? subWeeks(day, 1) : subMonths(day, 1));
  return before <= now ? before : value;
}
