import { findForm } from '../bot/document.js';
import type { ConversationState, Say } from './state.js';
import {
  advance,
  askFor,
  listWords,
  sayOwn,
  slotApplies,
  slotWords,
  valueWords,
  type Doing,
  type Turn,
} from './turn.js';
import type { GivenValues } from './values.js';

/** What is said about values that could not be taken as they were given; nothing where all could. */
export function remarksOn(turn: Turn, { wrong, firstOf }: GivenValues): Say[] {
  return [
    ...(firstOf === null ? [] : sayOwn(turn, 'oneAtATime', { said: firstOf })),
    ...[...new Set(wrong.map(({ text }) => text))].flatMap((text) => sayOwn(turn, text)),
  ];
}

/**
 * Goes on with the open form where a message gave something that cannot be taken as it is: tells it and asks.
 * `null` where there is nothing to tell.
 */
export function tellAbout(turn: Turn, state: ConversationState, gathered: GivenValues): Doing | null {
  const open = state.open!;
  const form = findForm(turn.document, open.form)!;
  const remarks = remarksOn(turn, gathered);
  const applies = (name: string) => {
    const slot = form.slots.find((item) => item.name === name);
    return slot && slotApplies(slot, open.values) ? slot : undefined;
  };
  if (gathered.between && applies(gathered.between.slot)) {
    const { slot, values } = gathered.between;
    const choices = listWords(
      turn,
      values.map((value) => valueWords(turn, value)),
      'disjunction',
    );
    const question = sayOwn(turn, 'whichValue', { choices, slot: slotWords(slot) });
    const next = { ...state, open: { ...open, asked: slot, stage: 'filling' as const, between: gathered.between } };
    return { state: next, says: [...remarks, ...question], acts: [] };
  }
  const wrong = gathered.wrong.map(({ slot }) => applies(slot)).find((slot) => slot !== undefined);
  if (wrong) {
    const asked = askFor(turn, { ...state, tries: state.tries + 1 }, wrong);
    return { ...asked, says: [...remarks, ...asked.says] };
  }
  if (remarks.length === 0) return null;
  const next = advance(turn, state);
  return { ...next, says: [...remarks, ...next.says] };
}
