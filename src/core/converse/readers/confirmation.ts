import type { Form, Slot } from '../../bot/document.js';
import { gatherValues } from '../../recognise/slots.js';
import { sameValue } from '../../recognise/value.js';
import { foldPhrase, saysNo, saysYes } from '../phrases.js';
import { chooseVariant } from '../render.js';
import {
  advance,
  applying,
  askFor,
  complete,
  openForm,
  sayText,
  setValues,
  slotApplies,
  type Reader,
  type Reply,
  type Turn,
} from '../turn.js';

/** The slot a customer names without a value: "the quantity", "the paper is wrong". */
function namedSlot(turn: Turn, form: Form): Slot | undefined {
  return form.slots.find((slot) => {
    const names = [slot.name, slot.entity].map((name) => foldPhrase(name.replace(/[_-]/g, ' ')));
    return names.some((name) => ` ${turn.folded} `.includes(` ${name} `) || ` ${turn.folded} `.includes(` ${name}s `));
  });
}

function correct(turn: Turn): Reply | null {
  const { open, form } = openForm(turn)!;
  const readings = turn.recogniser.readSlots(open.intent, turn.recognition, turn.vectors, open.asked);
  const given = applying(form, open.values, gatherValues(turn.document, form, readings));
  const changed = Object.fromEntries(
    Object.entries(given).filter(([slot, value]) => !sameValue(open.values[slot], value)),
  );
  if (Object.keys(changed).length === 0) return null;
  const set = setValues({ ...turn.state, tries: 0 }, open, changed);
  const next = advance(turn, set.state);
  return {
    ...next,
    acts: [...set.acts, ...next.acts],
    why: `the customer corrects ${Object.keys(changed).join(', ')}`,
  };
}

function askAboutNamed(turn: Turn): Reply | null {
  const { open, form } = openForm(turn)!;
  const slot = namedSlot(turn, form);
  if (!slot || !slotApplies(slot, open.values)) return null;
  const asked = askFor(turn, { ...turn.state, tries: 0 }, slot);
  return { ...asked, why: `the customer wants to change ${slot.name}` };
}

/** Yes, no or a correction, when the read-back stands open or the customer was asked what to change. */
export const confirmationReader: Reader = {
  name: 'confirmation',
  read(turn) {
    const current = openForm(turn);
    if (!current || current.open.stage === 'filling') return null;
    const { open, form } = current;
    const otherIntent = turn.recognition.decision === 'accept' && turn.recognition.intent !== open.intent;
    const corrected = otherIntent && !saysNo(turn.folded) && turn.folded.endsWith('?') ? null : correct(turn);
    if (corrected) return corrected;
    if (open.stage === 'confirming' && saysYes(turn.folded)) {
      return { ...complete(turn, turn.state), why: 'the customer says yes to the read-back' };
    }
    const named = otherIntent ? null : askAboutNamed(turn);
    if (named) return named;
    if (saysNo(turn.folded)) {
      if (open.stage === 'changing') return { ...advance(turn, turn.state), why: 'there is nothing to change' };
      const state = { ...turn.state, tries: 0, open: { ...open, stage: 'changing' as const, asked: null } };
      const decline = chooseVariant(form.decline, turn.language, turn.state.turns) ?? 'What would you like to change?';
      return { state, says: [sayText(turn, decline, state)], acts: [], why: 'the customer says no to the read-back' };
    }
    return null;
  },
};
