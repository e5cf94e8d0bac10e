import { findEntity, kindOf, type BotDocument, type EntityKind, type Form } from '../bot/document.js';
import { sameValue, type SlotValue, type Value, type Values } from '../recognise/value.js';
import { holds, slotsIn } from '../say/condition.js';
import { heldOf, putHeld } from '../text/named.js';

/** Kinds that nobody tells beside what is asked unless they are wanted: an address is where something is to go. */
const TELLING: readonly (EntityKind | undefined)[] = ['address', 'email', 'phone'];

/**
 * Whoever answers "deliver or collect?" with an address wants it delivered: the only value of a list by which the slot
 * of what was told counts.
 */
function choiceBehind(document: BotDocument, form: Form, held: Values, given: Values): Values {
  const known = { ...held, ...given };
  for (const slot of form.slots) {
    if (heldOf(given, slot.name) === undefined || !TELLING.includes(kindOf(document, slot))) continue;
    const [waitsFor, ...others] = slotsIn(slot.when).filter((name) => heldOf(known, name) === undefined);
    const choice = form.slots.find(({ name }) => name === waitsFor);
    if (!choice || others.length > 0 || kindOf(document, choice) !== 'list') continue;
    const fitting = (findEntity(document, choice.entity)?.values ?? []).filter(({ value }) =>
      holds(slot.when, { ...known, [choice.name]: value }),
    );
    if (fitting.length === 1) return { [choice.name]: fitting[0]!.value };
  }
  return {};
}

const asList = (value: SlotValue): Value[] => (Array.isArray(value) ? value : [value]);

/** "Six roses and four lavender … no, just the roses" are six: the number of a thing goes with it. */
function numbersLeft(document: BotDocument, form: Form, held: Values, given: Values): Values {
  const left: Values = {};
  for (const slot of form.slots) {
    const [before, now] = [heldOf(held, slot.name), heldOf(given, slot.name)];
    if (kindOf(document, slot) !== 'list' || !Array.isArray(before) || now === undefined) continue;
    const things = asList(now);
    const places = things.map((thing) => before.findIndex((one) => sameValue(one, thing)));
    if (places.includes(-1) || things.length >= before.length) continue;
    for (const other of form.slots) {
      const numbers = heldOf(held, other.name);
      if (kindOf(document, other) !== 'number' || heldOf(given, other.name) !== undefined) continue;
      if (!Array.isArray(numbers) || numbers.length !== before.length) continue;
      const own = places.map((place) => numbers[place]!);
      putHeld(left, other.name, own.length === 1 ? own[0]! : own);
    }
  }
  return left;
}

/**
 * What follows for slots that a message says nothing of from what it says.
 * @param held values of the open form
 * @param given values that the message gives
 */
export const whatFollows = (document: BotDocument, form: Form, held: Values, given: Values): Values => ({
  ...choiceBehind(document, form, held, given),
  ...numbersLeft(document, form, held, given),
});
