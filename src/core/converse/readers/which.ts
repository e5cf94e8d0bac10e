import type { Slot } from '../../bot/document.js';
import { showValue, type SlotValue } from '../../recognise/value.js';
import { sharesWord } from '../ends.js';
import { bareNumber, numberFor, onlyValue } from '../fits.js';
import { namedSlots } from '../named.js';
import { askAgain, countMiss, openForm, slotWords, takeAndAdvance, type Reader, type Turn } from '../turn.js';
import { valuesFor } from '../wishes.js';
import { heldOf } from '../../text/named.js';

/** The value of several that an answer chooses: by itself, or by its place. */
function chosenValue(turn: Turn, slot: Slot, values: readonly SlotValue[]): SlotValue | undefined {
  const open = turn.state.open!;
  const { given } = valuesFor(turn, open.intent, { asked: slot.name });
  const named = heldOf(given, slot.name);
  const has = (value: SlotValue | undefined) =>
    value !== undefined && values.some((other) => showValue(other) === showValue(value));
  if (has(named)) return named;
  const place = turn.language.figures.placeNamed(turn.hearing.folded, values.length);
  if (place !== null) return values[place];
  const number = bareNumber(turn.text, turn.language);
  const fitted = number
    ? numberFor(turn.document, slot, number, { today: turn.now })
    : onlyValue(turn.document, slot, turn.text);
  return has(fitted) ? fitted : undefined;
}

/** The answer to "which is it" about two values, or about two slots that a value could be for. */
export const whichReader: Reader = {
  name: 'which',
  read(turn) {
    const current = openForm(turn);
    if (!current) return null;
    const { open, form } = current;
    const state = { ...turn.state, tries: 0 };
    // A yes chooses neither, and is no yes to what was asked before.
    if (
      (open.between || open.fits) &&
      turn.hearing.onlySteers &&
      turn.hearing.says('yes', 'ok') &&
      !turn.hearing.says('no')
    ) {
      return { ...countMiss(turn, (next) => askAgain(turn, next)), why: 'a yes chooses neither' };
    }
    if (open.between) {
      const { slot: name, values } = open.between;
      const slot = form.slots.find((item) => item.name === name);
      const value = slot && chosenValue(turn, slot, values);
      if (value === undefined) return null;
      return { ...takeAndAdvance(turn, state, { [name]: value }), why: `the customer chooses ${showValue(value)}` };
    }
    if (open.fits) {
      const { options } = open.fits;
      const place = turn.language.figures.placeNamed(turn.hearing.folded, options.length);
      const inWords = options.filter(
        ({ slot, value }) =>
          sharesWord(slot, turn.text, turn.language) ||
          ` ${turn.hearing.folded} `.includes(` ${slotWords(slot)} `) ||
          turn.hearing.folded.includes(showValue(value).toLowerCase()),
      );
      // "The time", though the slot is called otherwise.
      const slots = namedSlots(turn, form, open).map(({ name }) => name);
      const named = inWords.length > 0 ? inWords : options.filter(({ slot }) => slots.includes(slot));
      const option = place !== null ? options[place] : named.length === 1 ? named[0] : undefined;
      if (!option) return null;
      return {
        ...takeAndAdvance(turn, state, { [option.slot]: option.value }),
        why: `the customer means ${option.slot}`,
      };
    }
    return null;
  },
};
