import { isBuiltInKind, kindOf, type Form, type Slot } from '../bot/document.js';
import type { Language } from '../language/language.js';
import { foldPhrase } from '../text/foldPhrase.js';
import type { OpenForm } from './state.js';
import { askFor, slotApplies, slotWords, type Reply, type Turn } from './turn.js';
import { heldOf } from '../text/named.js';

/** The words of a message by which it may name a slot. */
type Way = (slot: Slot, heard: readonly string[], turn: Turn, slots: readonly Slot[]) => string[];

/** Ways of naming a slot by its own name, the surest first. */
const BY_NAME: readonly Way[] = [
  ({ name }, heard, { language }) => phraseIn(heard, slotWords(name), language),
  ({ entity }, heard, { language }) => (isBuiltInKind(entity) ? [] : phraseIn(heard, slotWords(entity), language)),
  // "The job number" by a word of the slot's name that no other slot has.
  (slot, heard, { language }, slots) =>
    partsOf(slot, language).filter(
      (word) =>
        heard.includes(word) && !slots.some((other) => other !== slot && partsOf(other, language).includes(word)),
    ),
];

/** Ways of naming slots by what they hold: those that hold nothing are not meant. */
const BY_KIND: readonly Way[] = [
  // "The day" of a slot that is a day.
  (slot, heard, { document, language }) =>
    heard.filter((word) => language.slots.called(kindOf(document, slot) ?? 'free', word)),
  // "The number" is an amount where no code or telephone number is meant.
  (slot, heard, { document, language }) =>
    kindOf(document, slot) === 'number' ? heard.filter((word) => language.slots.isAmount(word)) : [],
];

const partsOf = ({ name }: Slot, { slots }: Language): string[] =>
  foldPhrase(slotWords(name))
    .split(' ')
    .filter((word) => word.length > 2 && !slots.namesNothing(word));

/** The words of a name where a message has all of them, one after another; the last may be a plural. */
function phraseIn(heard: readonly string[], name: string, { slots }: Language): string[] {
  const words = foldPhrase(name).split(' ');
  const at = heard.findIndex((_, start) =>
    words.every((word, index) => {
      const said = heard[start + index];
      return said === word || (index === words.length - 1 && said === slots.plural(word));
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
  const holding = slots.filter(({ name }) => heldOf(values, name) !== undefined);
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
