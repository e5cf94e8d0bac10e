import { isBuiltInKind, kindOf, type EntityKind, type Form, type Slot } from '../bot/document.js';
import { foldPhrase } from '../text/foldPhrase.js';
import type { OpenForm } from './state.js';
import { askFor, slotApplies, slotWords, type Reply, type Turn } from './turn.js';

/** What customers call a value by its kind, where a form has one of that kind. */
const CALLED: Partial<Record<EntityKind, RegExp>> = {
  date: /^(?:day|date)s?$/,
  time: /^(?:time|hour)s?$/,
  number: /^(?:amount|quantity)s?$/,
  pattern: /^(?:number|code|reference|ref)s?$/,
  person: /^names?$/,
  address: /^(?:address(?:es)?|place|street)$/,
  email: /^(?:email|mail)s?$/,
  phone: /^(?:phone|number|mobile)s?$/,
  money: /^(?:price|amount|sum|budget)s?$/,
};
/** Words of a slot's name that do not name it by themselves. */
const NO_NAME = new Set('new old the how many for and your our first last other wanted'.split(' '));

/** The words of a message by which it may name a slot. */
type Way = (slot: Slot, heard: readonly string[], turn: Turn, slots: readonly Slot[]) => string[];

/** Ways of naming a slot by its own name, the surest first. */
const BY_NAME: readonly Way[] = [
  ({ name }, heard) => phraseIn(heard, slotWords(name)),
  ({ entity }, heard) => (isBuiltInKind(entity) ? [] : phraseIn(heard, slotWords(entity))),
  // "The job number" by a word of the slot's name that no other slot has.
  (slot, heard, _, slots) =>
    partsOf(slot).filter(
      (word) => heard.includes(word) && !slots.some((other) => other !== slot && partsOf(other).includes(word)),
    ),
];

/** Ways of naming slots by what they hold: those that hold nothing are not meant. */
const BY_KIND: readonly Way[] = [
  // "The day" of a slot that is a day.
  (slot, heard, { document }) => {
    const called = CALLED[kindOf(document, slot) ?? 'free'];
    return called ? heard.filter((word) => called.test(word)) : [];
  },
  // "The number" is an amount where no code or telephone number is meant.
  (slot, heard, { document }) => (kindOf(document, slot) === 'number' ? heard.filter((word) => word === 'number') : []),
];

const partsOf = ({ name }: Slot): string[] =>
  foldPhrase(slotWords(name))
    .split(' ')
    .filter((word) => word.length > 2 && !NO_NAME.has(word));

/** The words of a name where a message has all of them, one after another; the last may be a plural. */
function phraseIn(heard: readonly string[], name: string): string[] {
  const words = foldPhrase(name).split(' ');
  const at = heard.findIndex((_, start) =>
    words.every((word, index) => {
      const said = heard[start + index];
      return said === word || (index === words.length - 1 && said === `${word}s`);
    }),
  );
  return at < 0 ? [] : heard.slice(at, at + words.length);
}

/** The slots a customer names without a value: "the quantity", "the paper is wrong", "the day and the time". */
export function namedSlots(turn: Turn, form: Form, { values }: OpenForm): Slot[] {
  const heard = turn.hearing.folded.replace(/\?$/, '').split(' ');
  const slots = form.slots.filter((slot) => slotApplies(slot, values));
  const named = new Set<Slot>();
  const used = new Set<string>();
  const holding = slots.filter(({ name }) => values[name] !== undefined);
  for (const way of [...BY_NAME, ...BY_KIND]) {
    const found = (BY_KIND.includes(way) ? holding : slots).map((slot) => ({
      slot,
      words: way(slot, heard, turn, slots),
    }));
    for (const { slot, words } of found) if (words.some((word) => !used.has(word))) named.add(slot);
    for (const { words } of found) for (const word of words) used.add(word);
  }
  return form.slots.filter((slot) => named.has(slot));
}

/** Asks anew for slots that the customer names, one after another. */
export function askForNamed(turn: Turn, open: OpenForm, named: readonly Slot[]): Reply {
  const names = named.map(({ name }) => name);
  const state = { ...turn.state, tries: 0, open: { ...open, toAsk: names } };
  return { ...askFor(turn, state, named[0]!), why: `the customer wants to change ${names.join(' and ')}` };
}
