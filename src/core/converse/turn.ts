import jsonLogic from 'json-logic-js';
import { findForm, findIntent, type BotDocument, type Form, type Slot } from '../bot/document.js';
import type { Recogniser } from '../recognise/recogniser.js';
import { NO_VECTORS, type Vectors } from '../encode/encoder.js';
import type { Recognition } from '../recognise/recognition.js';
import { sameValue, type SlotValue } from '../recognise/value.js';
import { foldPhrase } from './phrases.js';
import { chooseVariant, renderMessage } from './render.js';
import { heldValues, type Act, type ConversationState, type OpenForm, type Say } from './state.js';

/** What a reader makes of a turn. */
export interface Reply {
  state: ConversationState;
  says: Say[];
  acts: Act[];
  /** In a sentence. */
  why: string;
}

/** Tries to read a turn; gives `null` to leave it to the next reader. */
export interface Reader {
  readonly name: string;
  read(turn: Turn): Reply | null;
}

/** A customer's words with all that readers ask of them. */
export interface Turn {
  recogniser: Recogniser;
  document: BotDocument;
  state: ConversationState;
  text: string;
  /** The text as phrases are matched on it. */
  folded: string;
  recognition: Recognition;
  /** What the words were recognised with. */
  vectors: Vectors;
  language: string;
}

export function readTurn(
  recogniser: Recogniser,
  state: ConversationState,
  recognition: Recognition,
  vectors: Vectors = NO_VECTORS,
): Turn {
  return {
    recogniser,
    document: recogniser.document,
    state,
    text: recognition.text,
    folded: foldPhrase(recognition.text),
    recognition,
    vectors,
    language: recogniser.document.languages[0] ?? 'en',
  };
}

/** How an intent is named to a customer. */
export function intentLabel(document: BotDocument, name: string): string {
  return (
    findIntent(document, name)
      ?.description?.replace(/^the customer /i, '')
      .replace(/\.$/, '') ?? name.replace(/[_-]/g, ' ')
  );
}

/** The form that is open, with its definition. */
export function openForm(turn: Turn): { open: OpenForm; form: Form } | null {
  const { open } = turn.state;
  const form = findForm(turn.document, open?.form);
  return open && form ? { open, form } : null;
}

/** A text of the bot with the conversation's values in it. */
export function sayText(turn: Turn, message: string, state: ConversationState): Say {
  const values: Record<string, SlotValue> = { order_no: state.reference, ...heldValues(state) };
  return { text: renderMessage(message, values, turn.language, turn.document.region) };
}

/** Whether a slot counts now: its condition holds for the values there are. */
export function slotApplies(slot: Slot, values: Record<string, SlotValue>): boolean {
  if (slot.when === undefined || typeof slot.when === 'boolean') return slot.when ?? true;
  return Boolean(jsonLogic.apply(slot.when as Parameters<typeof jsonLogic.apply>[0], values));
}

/** Of the values that a message gives, those whose slots count once the message is taken. */
export function applying(
  form: Form,
  held: Record<string, SlotValue>,
  given: Record<string, SlotValue>,
): Record<string, SlotValue> {
  const slots = form.slots.filter((slot) => given[slot.name] !== undefined && slotApplies(slot, { ...held, ...given }));
  return Object.fromEntries(slots.map(({ name }) => [name, given[name]!]));
}

/** The first required slot that applies and holds nothing. */
export function nextSlot(form: Form, values: Record<string, SlotValue>): Slot | undefined {
  return form.slots.find((slot) => slot.required && values[slot.name] === undefined && slotApplies(slot, values));
}

/** Puts values into the open form. Acts tell what each slot held before. */
export function setValues(
  state: ConversationState,
  open: OpenForm,
  given: Record<string, SlotValue>,
): { state: ConversationState; acts: Act[] } {
  const acts: Act[] = Object.entries(given)
    .filter(([slot, value]) => !sameValue(open.values[slot], value))
    .map(([slot, value]) => {
      const before = open.values[slot];
      return { act: 'setSlot', slot, value, ...(before === undefined ? {} : { before }) };
    });
  return { state: { ...state, open: { ...open, values: { ...open.values, ...given } } }, acts };
}

function promptFor(turn: Turn, state: ConversationState, slot: Slot): Say {
  const written = chooseVariant(slot.prompts, turn.language, state.tries, true);
  return sayText(turn, written ?? `What is the ${slot.name.replace(/[_-]/g, ' ')}?`, state);
}

/** Asks for a slot of the open form. */
export function askFor(turn: Turn, state: ConversationState, slot: Slot): Omit<Reply, 'why'> {
  const open = state.open!;
  const next = { ...state, open: { ...open, asked: slot.name, stage: 'filling' as const } };
  return { state: next, says: [promptFor(turn, next, slot)], acts: [] };
}

/** Goes on with the open form: asks for what is missing, else reads back, else completes. */
export function advance(turn: Turn, state: ConversationState): Omit<Reply, 'why'> {
  const open = state.open!;
  const form = findForm(turn.document, open.form)!;
  const slot = nextSlot(form, open.values);
  if (slot) return askFor(turn, state, slot);
  const confirm = chooseVariant(form.confirm, turn.language, state.turns);
  if (confirm === null) return complete(turn, state);
  const next: ConversationState = { ...state, open: { ...open, asked: null, stage: 'confirming' } };
  return { state: next, says: [sayText(turn, confirm, next)], acts: [] };
}

/** Closes the open form as done, hands it to its desk if it has one, and goes back to a form put aside. */
export function complete(turn: Turn, state: ConversationState): Omit<Reply, 'why'> {
  const open = state.open!;
  const form = findForm(turn.document, open.form)!;
  const acts: Act[] = [
    { act: 'complete', form: form.name, intent: open.intent, values: open.values, reference: state.reference },
  ];
  const done = chooseVariant(form.done, turn.language, state.turns);
  const closed: ConversationState = { ...state, open: null, last: open, tries: 0, outcome: 'completed' };
  const says = done === null ? [] : [sayText(turn, done, closed)];
  if (form.desk !== undefined) {
    const handed = handOver(turn, closed, form.desk);
    return { state: handed.state, says: [...says, ...handed.says], acts: [...acts, ...handed.acts] };
  }
  return resume(turn, closed, says, acts);
}

/** Goes back to the form put aside last, if there is one. */
export function resume(turn: Turn, state: ConversationState, says: Say[], acts: Act[]): Omit<Reply, 'why'> {
  const parked = state.parked.at(-1);
  if (!parked) return { state, says, acts };
  const next: ConversationState = {
    ...state,
    open: parked,
    parked: state.parked.slice(0, -1),
    outcome: null,
    tries: 0,
  };
  const advanced = advance(turn, next);
  return {
    state: advanced.state,
    says: [...says, ...advanced.says],
    acts: [...acts, { act: 'resumeForm', form: parked.form }, ...advanced.acts],
  };
}

/** Hands the conversation to a desk. */
export function handOver(turn: Turn, state: ConversationState, deskName: string): Omit<Reply, 'why'> {
  const desk = turn.document.desks.find((candidate) => candidate.name === deskName);
  const written = chooseVariant(desk?.handover, turn.language, state.turns) ?? 'I will pass you on to a colleague.';
  const next: ConversationState = {
    ...state,
    open: null,
    parked: [],
    last: state.open ?? state.last,
    choosing: null,
    tries: 0,
    outcome: 'handed_off',
    desk: deskName,
  };
  return { state: next, says: [sayText(turn, written, next)], acts: [{ act: 'handOver', desk: deskName }] };
}

/** What happens after a try that was not understood: the next prompt, or the desk, or giving up. */
export function countMiss(turn: Turn, prompt: (state: ConversationState) => Omit<Reply, 'why'>): Omit<Reply, 'why'> {
  const { noMatch } = turn.document;
  const state = { ...turn.state, tries: turn.state.tries + 1 };
  if (state.tries < noMatch.tries) return prompt(state);
  const desk = noMatch.desk ?? turn.document.desks[0]?.name;
  if (desk !== undefined) return handOver(turn, state, desk);
  const words = chooseVariant(noMatch.giveUp, turn.language, 0) ?? '';
  const next: ConversationState = {
    ...state,
    open: null,
    parked: [],
    last: state.open ?? state.last,
    tries: 0,
    outcome: 'abandoned',
  };
  return { state: next, says: words === '' ? [] : [sayText(turn, words, next)], acts: [] };
}
