import { customersName, isOffered } from '../bot/customersName.js';
import { findForm, findIntent, formOfIntent, type BotDocument, type Form, type Slot } from '../bot/document.js';
import { NO_VECTORS, type Vectors } from '../encode/encoder.js';
import { languageOf } from '../language/index.js';
import type { Language } from '../language/language.js';
import { mainLanguage } from '../recognise/reading.js';
import type { Recogniser } from '../recognise/open.js';
import type { Recognition } from '../recognise/recognition.js';
import { sameValue, type SlotValue, type Values } from '../recognise/value.js';
import { holds, slotsIn } from '../say/condition.js';
import { argumentsOf } from '../say/message.js';
import { lineSlots, sayThings } from './orderLines.js';
import { chooseVariant, renderMessage, wordingForTry } from '../say/render.js';
import { localeOf, sayValue } from '../say/sayValue.js';
import type { TextName } from '../say/engineTexts.js';
import { textOf } from '../say/texts.js';
import { whatFollows } from './follows.js';
import { hear, partsOf, type Hearing, type Part } from './hear.js';
import type { Steering } from './steering.js';
import {
  type Act,
  type ConversationState,
  type OfferedIntent,
  type OpenForm,
  type Remembered,
  type Say,
} from './state.js';
import { dropHeld, entriesOf, heldBy, heldOf, withoutHeld } from '../text/named.js';

/** What a reader makes of a turn. */
export interface Reply {
  state: ConversationState;
  says: Say[];
  acts: Act[];
  /** In a sentence. */
  why: string;
}

/** A reply that somebody else gives the reason for. */
export type Doing = Omit<Reply, 'why'>;

/** Tries to read a turn; gives `null` to leave it to the next reader. */
export interface Reader {
  readonly name: string;
  read(turn: Turn): Reply | null;
}

/** A part of a message, read on its own. */
export interface ReadPart extends Part {
  recognition: Recognition;
}

/** A customer's words with all that readers ask of them. */
export interface Turn {
  recogniser: Recogniser;
  document: BotDocument;
  state: ConversationState;
  text: string;
  hearing: Hearing;
  recognition: Recognition;
  /** The reading of what the message says of the matter, without what only steers. */
  matter: Recognition;
  /** What the message says of the matter in parts, each read on its own; none where there is one part. */
  parts: readonly ReadPart[];
  /** What the words were recognised with. */
  vectors: Vectors;
  /** BCP 47 tag of what the bot speaks. */
  tag: string;
  /** What the customer's words are read with. */
  language: Language;
  /** Local ISO time; `null` in a turn without words. */
  now: string | null;
}

/**
 * What a message says of the matter, as one text, without what joins it to the rest ("yes and book a new one"). "Forget
 * it, a walk instead" speaks of a walk: it has left the rest.
 */
export function matterOf(hearing: Hearing): string {
  const { leading, insteadAtEnd } = hearing.language.clauses;
  const text = hearing.content
    .map((clause) => clause.text)
    .join(' ')
    .replace(leading, '');
  return hearing.says('leave') ? text.replace(insteadAtEnd, '') : text;
}

/** The texts whose sentence vectors a turn needs: of the message, and of its parts where it has several. */
export function textsOfTurn(recogniser: Recogniser, text: string): string[] {
  const hearing = hear(text, languageOf(recogniser.document));
  const parts = partsOf(hearing);
  const more = hearing.content.length < hearing.clauses.length && hearing.content.length > 0 ? [matterOf(hearing)] : [];
  const own = [text, ...more, ...(parts.length > 1 ? parts.map((part) => part.text) : [])];
  return [...new Set(own.flatMap((part) => recogniser.textsToEncode(part)))];
}

/** Ways of steering that only mean something while there is something to leave, to keep or to agree to. */
const LEAVING: readonly Steering[] = ['leave', 'keep', 'yes'];

/**
 * Hears a message where the conversation stands: an answer to what was asked does not steer, and "cancel my booking" is a
 * request where there is nothing to leave or where it is one of the choices.
 */
function hearIn(document: BotDocument, state: ConversationState, { text, ...recognition }: Recognition): Hearing {
  const asked = findForm(document, state.open?.form)?.slots.find(({ name }) => name === state.open?.asked);
  const known = {
    mendings: recognition.mendings,
    values: recognition.entities,
    answers: recognition.entities.filter(({ entity }) => entity === asked?.entity),
  };
  const language = languageOf(document);
  const hearing = hear(text, language, known);
  return hearing.onlySteers && isRequest(document, state, hearing, recognition)
    ? hear(text, language, { ...known, idle: LEAVING })
    : hearing;
}

/** Whether words that would leave something or agree to something ask for it instead: "cancel my booking", "book it". */
function isRequest(
  document: BotDocument,
  { open, choosing, offered }: ConversationState,
  hearing: Hearing,
  { intent, decision }: Pick<Recognition, 'intent' | 'decision'>,
): boolean {
  const agrees = hearing.says('yes') && hearing.language.naming.isVerb(hearing.folded.split(' ')[0]!);
  if (open || offered || decision === 'none' || !(agrees || hearing.says('leave', 'keep'))) return false;
  if (choosing) return choosing.some((option) => option.intent === intent);
  // "Forget it" names nothing; "cancel my booking" does.
  const { calledOff, letsBe } = hearing.language.clauses;
  const letBe = hearing.clauses.every(({ folded }) => letsBe(folded));
  const namesIt = (decision === 'accept' && !letBe) || agrees || calledOff(hearing.folded);
  return namesIt && formOfIntent(document, intent ?? '') !== undefined;
}

/** Puts a message into the form in which readers take it. */
export function readTurn(
  recogniser: Recogniser,
  state: ConversationState,
  recognition: Recognition,
  { vectors = NO_VECTORS, now = null }: { vectors?: Vectors; now?: string | null } = {},
): Turn {
  const { text } = recognition;
  const hearing = hearIn(recogniser.document, state, recognition);
  const again = (part: string) => (now === null ? recognition : recogniser.recognise(part, vectors, now));
  const parts = partsOf(hearing);
  const steers = hearing.content.length > 0 && hearing.content.length < hearing.clauses.length;
  const matter = steers ? again(matterOf(hearing)) : recognition;
  const givesReason = hearing.language.clauses.givesReason(hearing.folded);
  return {
    recogniser,
    document: recogniser.document,
    state,
    text,
    hearing,
    recognition,
    matter: state.open && givesReason ? asAside(matter) : matter,
    parts: parts.length > 1 ? parts.map((part) => ({ ...part, recognition: again(part.text) })) : [],
    vectors,
    tag: mainLanguage(recogniser.document),
    language: hearing.language,
    now,
  };
}

/** A reading of words that ask for nothing, whatever they resemble. */
const asAside = (reading: Recognition): Recognition => ({ ...reading, intent: null, decision: 'none', candidates: [] });

/** The form that is open, with its definition. */
export function openForm(turn: Turn): { open: OpenForm; form: Form } | null {
  const { open } = turn.state;
  const form = findForm(turn.document, open?.form);
  return open && form ? { open, form } : null;
}

/** A form with nothing in it yet. */
export const emptyForm = (intent: string, form: string): OpenForm => ({
  intent,
  form,
  values: {},
  asked: null,
  stage: 'filling',
  early: {},
  toAsk: [],
  between: null,
  fits: null,
});

/** A slot in words: `order_no` is "order no". */
export const slotWords = (slot: string): string => slot.replace(/[_-]+/g, ' ');

/** A value in the bot's language. */
export const valueWords = (turn: Turn, value: SlotValue): string =>
  sayValue(value, localeOf(turn.tag, turn.document.region));

/** Some wordings as a list in the bot's language. */
export function listWords(turn: Turn, words: readonly string[], type: 'conjunction' | 'disjunction'): string {
  return new Intl.ListFormat(localeOf(turn.tag, turn.document.region), { type }).format(words);
}

/** How an intent is named to the customer of a turn. */
export const intentLabel = (turn: Turn, name: string): string => customersName(turn.document, name, turn.tag);

/** A text of the bot with the values of the form it belongs to. */
export function sayText(turn: Turn, message: string, state: ConversationState): Say {
  const form = state.open ?? state.last;
  const reference = state.open ? state.reference : (state.lastReference ?? state.reference);
  return {
    text: renderMessage(message, { reference, order_no: reference, ...form?.values }, turn.tag, turn.document.region),
  };
}

/** A sentence of the engine; nothing where the bot has emptied it. @param at the try that it is said at */
export function sayOwn(turn: Turn, name: TextName, values: Record<string, string> = {}, at = 0): Say[] {
  const wording = wordingForTry(textOf(turn.document, name), turn.tag, at);
  if (wording === null) return [];
  const text = renderMessage(wording, values, turn.tag, turn.document.region);
  return text === '' ? [] : [{ text }];
}

/** Whether a slot counts now: its condition holds for the values there are. */
export const slotApplies = (slot: Slot, values: Values): boolean => holds(slot.when, values);

/** Of the values that a message gives, those whose slots count once the message is taken. */
export function applying(form: Form, held: Values, given: Values): Values {
  const slots = form.slots.filter(
    (slot) => heldOf(given, slot.name) !== undefined && slotApplies(slot, { ...held, ...given }),
  );
  return heldBy(slots.map(({ name }) => [name, heldOf(given, name)!]));
}

/** Of the values that a message gives, those of slots whose condition waits for another slot. */
export function tooEarly(form: Form, held: Values, given: Values): Values {
  const known = { ...held, ...given };
  const slots = form.slots.filter(
    (slot) =>
      heldOf(given, slot.name) !== undefined &&
      !slotApplies(slot, known) &&
      slotsIn(slot.when).some((name) => heldOf(known, name) === undefined),
  );
  return heldBy(slots.map(({ name }) => [name, heldOf(given, name)!]));
}

/** The slot to ask for: one that is to be asked anew, else the first required one that applies and holds nothing. */
function nextSlot(form: Form, { values, toAsk }: OpenForm): Slot | undefined {
  const again = form.slots.find((slot) => toAsk.includes(slot.name) && slotApplies(slot, values));
  return (
    again ??
    form.slots.find((slot) => slot.required && heldOf(values, slot.name) === undefined && slotApplies(slot, values))
  );
}

/**
 * Puts values into the open form, with what follows from them; values of slots that no longer apply leave it. Acts tell
 * what each slot held before.
 */
export function setValues(
  turn: Turn,
  state: ConversationState,
  told: Values,
): { state: ConversationState; acts: Act[]; changed: string[] } {
  const open = state.open!;
  const form = findForm(turn.document, open.form)!;
  const given = { ...whatFollows(turn.document, form, open.values, told), ...told };
  const acts: Act[] = [];
  const changed: string[] = [];
  const early = { ...open.early, ...tooEarly(form, open.values, given) };
  const taken = applying(form, open.values, { ...early, ...given });
  for (const slot of Object.keys(taken)) dropHeld(early, slot);
  for (const [slot, value] of entriesOf(taken)) {
    const before = heldOf(open.values, slot);
    if (sameValue(before, value)) continue;
    acts.push({ act: 'setSlot', slot, value, ...(before === undefined ? {} : { before }) });
    if (before !== undefined && heldOf(told, slot) !== undefined) changed.push(slot);
  }
  let values = { ...open.values, ...taken };
  for (let gone = true; gone;) {
    const idle = form.slots.find((slot) => heldOf(values, slot.name) !== undefined && !slotApplies(slot, values));
    gone = idle !== undefined;
    if (!idle) break;
    acts.push({ act: 'clearSlot', slot: idle.name, before: heldOf(values, idle.name)! });
    values = withoutHeld(values, idle.name);
  }
  const toAsk = open.toAsk.filter((slot) => heldOf(taken, slot) === undefined);
  return { state: { ...state, open: { ...open, values, early, toAsk, between: null, fits: null } }, acts, changed };
}

/** Says that values were changed; nothing where the read-back that follows names them itself. */
export function sayChanges(
  turn: Turn,
  state: ConversationState,
  slots: readonly string[],
  readBack: string | null,
): Say[] {
  const told = readBack === null ? [] : argumentsOf(readBack).map(({ name }) => name);
  const values = state.open?.values ?? {};
  const untold = slots.filter((slot) => !told.includes(slot) && heldOf(values, slot) !== undefined);
  if (untold.length === 0) return [];
  // Of several things each is told with its number.
  const form = findForm(turn.document, state.open?.form);
  const things = form ? lineSlots(turn.document, form) : null;
  const ofThings =
    things && Array.isArray(heldOf(values, things.number))
      ? untold.filter((slot) => slot === things.number || things.lists.includes(slot))
      : [];
  const words = [
    ...(form && ofThings.length > 0 ? [sayThings(turn.document, form, values, turn.tag)] : []),
    ...untold.filter((slot) => !ofThings.includes(slot)).map((slot) => valueWords(turn, heldOf(values, slot)!)),
  ];
  return sayOwn(turn, 'changed', {
    values: listWords(turn, words, 'conjunction'),
    slots: listWords(turn, untold.map(slotWords), 'conjunction'),
  });
}

function promptFor(turn: Turn, state: ConversationState, slot: Slot): Say[] {
  const written = wordingForTry(slot.prompts, turn.tag, state.tries);
  return written === null ? sayOwn(turn, 'askSlot', { slot: slotWords(slot.name) }) : [sayText(turn, written, state)];
}

/** Asks for a slot of the open form. */
export function askFor(turn: Turn, state: ConversationState, slot: Slot): Doing {
  const open = state.open!;
  const next = { ...state, open: { ...open, asked: slot.name, stage: 'filling' as const } };
  return { state: next, says: promptFor(turn, next, slot), acts: [] };
}

/** The wording of the read-back of a form at this point of a conversation; `null` where it has none. */
export const readBackOf = (turn: Turn, form: Form, state: ConversationState): string | null =>
  chooseVariant(form.confirm, turn.tag, state.turns);

/** Goes on with the open form: asks for what is missing, else reads back, else completes. */
export function advance(turn: Turn, state: ConversationState): Doing {
  const open = state.open!;
  const form = findForm(turn.document, open.form)!;
  const slot = nextSlot(form, open);
  if (slot) return askFor(turn, state, slot);
  const confirm = readBackOf(turn, form, state);
  if (confirm === null) return complete(turn, state);
  const next: ConversationState = { ...state, open: { ...open, asked: null, stage: 'confirming' } };
  return { state: next, says: [sayText(turn, confirm, next)], acts: [] };
}

/** Takes values into the open form, says what was changed, and goes on. */
export function takeAndAdvance(turn: Turn, state: ConversationState, given: Values): Doing {
  const set = setValues(turn, state, given);
  const next = advance(turn, set.state);
  const open = set.state.open!;
  const form = findForm(turn.document, open.form)!;
  const readBack = next.state.open?.stage === 'confirming' ? readBackOf(turn, form, set.state) : null;
  const told = sayChanges(turn, set.state, set.changed, readBack);
  return { ...next, says: [...told, ...next.says], acts: [...set.acts, ...next.acts] };
}

/** The number after a number: the next of a row of figures, else the same with a count. */
function nextReference(reference: string): string {
  return /^\d{1,15}$/.test(reference)
    ? String(Number(reference) + 1).padStart(reference.length, '0')
    : `${reference}-2`;
}

/** What was remembered, and what a form held: of each slot and entity the latest. */
function remember(before: readonly Remembered[], { slots }: Form, values: Values): Remembered[] {
  const now = slots.flatMap(({ name: slot, entity }): Remembered[] => {
    const value = heldOf(values, slot);
    return value === undefined ? [] : [{ slot, entity, value }];
  });
  const isNew = (one: Remembered) => !now.some(({ slot, entity }) => slot === one.slot && entity === one.entity);
  return [...now, ...before.filter(isNew)];
}

/** Closes the open form as done, hands it to its desk if it has one, and goes on with what waits. */
export function complete(turn: Turn, state: ConversationState): Doing {
  const open = state.open!;
  const form = findForm(turn.document, open.form)!;
  const acts: Act[] = [
    { act: 'complete', form: form.name, intent: open.intent, values: open.values, reference: state.reference },
  ];
  const done = chooseVariant(form.done, turn.tag, state.turns);
  const closed: ConversationState = {
    ...state,
    open: null,
    last: open,
    tries: 0,
    outcome: 'completed',
    remembered: remember(state.remembered, form, open.values),
    lastReference: state.reference,
    reference: nextReference(state.reference),
  };
  const says = done === null ? [] : [sayText(turn, done, closed)];
  if (form.desk !== undefined) {
    const handed = handOver(turn, closed, form.desk);
    return { state: handed.state, says: [...says, ...handed.says], acts: [...acts, ...handed.acts] };
  }
  return goOn(turn, closed, says, acts);
}

/** Leaves the open form undone, and goes on with what waits. @param words what is said of it; the engine's own without */
export function leave(turn: Turn, words?: Say[]): Doing {
  const { open } = turn.state;
  const state: ConversationState = {
    ...turn.state,
    open: null,
    last: open ?? turn.state.last,
    choosing: null,
    offered: null,
    tries: 0,
    outcome: 'cancelled',
  };
  return goOn(turn, state, words ?? sayOwn(turn, 'left'), [{ act: 'cancel', form: open?.form ?? null }]);
}

/** Goes back to the form put aside last, else to the clarification that was put off, else offers the wish that waits, if there is one. */
export function goOn(turn: Turn, state: ConversationState, says: Say[], acts: Act[]): Doing {
  const parked = state.parked.at(-1);
  if (parked) {
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
  if (state.unsettled) {
    const { unsettled } = state;
    const question = sayClarification(
      turn,
      unsettled.map(({ intent }) => intent),
    );
    return {
      state: { ...state, unsettled: null, choosing: unsettled, outcome: null },
      says: [...says, ...question],
      acts,
    };
  }
  const [offered, ...waiting] = state.waiting;
  if (!offered) return { state, says, acts };
  const question = sayOwn(turn, 'offerNext', { wish: intentLabel(turn, offered.intent) });
  return { state: { ...state, offered, waiting }, says: [...says, ...question], acts };
}

/** Asks which of some intents is meant. @param tries how often that failed */
export function sayClarification(turn: Turn, intents: readonly string[], tries = 0): Say[] {
  const choices = intents.map((intent) => ({ intent, label: intentLabel(turn, intent) }));
  const words = listWords(
    turn,
    choices.map(({ label }) => `“${label}”`),
    'disjunction',
  );
  return sayOwn(turn, choices.length > 1 ? 'clarify' : 'clarifyOne', { choices: words }, tries).map((say) => ({
    ...say,
    choices,
  }));
}

/** How many things the bot says it can do. */
const MOST_NAMED = 6;

/** What the bot can do, by the names that customers know. */
export function sayOptions(turn: Turn): Say[] {
  const names = turn.document.intents
    .filter((intent) => isOffered(intent, turn.language))
    .slice(0, MOST_NAMED)
    .map(({ name }) => customersName(turn.document, name, turn.tag));
  return names.length > 0
    ? sayOwn(turn, 'help', { choices: listWords(turn, names, 'conjunction') })
    : sayOwn(turn, 'helpNothing');
}

/** The desk that takes what the bot cannot; `undefined` where it has none. */
export const generalDesk = (document: BotDocument): string | undefined =>
  document.noMatch.desk ?? document.desks[0]?.name;

/** Hands the conversation to a desk. */
export function handOver(turn: Turn, state: ConversationState, deskName: string): Doing {
  const desk = turn.document.desks.find((candidate) => candidate.name === deskName);
  const next: ConversationState = {
    ...state,
    open: null,
    parked: [],
    unsettled: null,
    waiting: [],
    offered: null,
    last: state.open ?? state.last,
    choosing: null,
    tries: 0,
    outcome: 'handed_off',
    desk: deskName,
    toldOfDesk: false,
  };
  const written = chooseVariant(desk?.handover, turn.tag, state.turns);
  const says = written === null ? sayOwn(turn, 'handover') : [sayText(turn, written, next)];
  return { state: next, says, acts: [{ act: 'handOver', desk: deskName }] };
}

/** Gives up: closes what is open, with the bot's words for it. */
export function giveUp(turn: Turn, state: ConversationState): Doing {
  const words = chooseVariant(turn.document.noMatch.giveUp, turn.tag, 0);
  const next: ConversationState = {
    ...state,
    open: null,
    parked: [],
    unsettled: null,
    waiting: [],
    offered: null,
    choosing: null,
    last: state.open ?? state.last,
    tries: 0,
    outcome: 'abandoned',
  };
  return { state: next, says: words === null ? [] : [sayText(turn, words, next)], acts: [] };
}

/** Counts a try that was not understood; after the last one the conversation is handed over or given up. */
export function countMiss(turn: Turn, prompt: (state: ConversationState) => Doing): Doing {
  const state = { ...turn.state, tries: turn.state.tries + 1 };
  if (state.tries < mostTries(turn)) return prompt(state);
  const desk = generalDesk(turn.document);
  return desk === undefined ? giveUp(turn, state) : handOver(turn, state, desk);
}

/** How many tries fail at what the conversation waits for, before it is handed over or given up. */
export function mostTries({ document, state }: Turn): number {
  const form = findForm(document, state.open?.form);
  const slot = form?.slots.find(({ name }) => name === state.open?.asked);
  if (slot?.tries !== undefined) return slot.tries;
  const { order, tries } = document.noMatch;
  return state.open || state.choosing ? tries : (order?.length ?? tries - 1) + 1;
}

/** Says again what the conversation waits for: the prompt of a slot, the read-back, or the question that stands open. */
export function askAgain(turn: Turn, state: ConversationState): Doing {
  const form = findForm(turn.document, state.open?.form);
  if (!state.open || !form) return { state, says: state.lastSaid.slice(-1), acts: [] };
  const { between, fits, stage } = state.open;
  if (between || fits) return { state, says: state.lastSaid.slice(-1), acts: [] };
  if (stage === 'changing') return { state, says: sayDecline(turn, form, state), acts: [] };
  const slot = form.slots.find((candidate) => candidate.name === state.open!.asked);
  return slot ? askFor(turn, state, slot) : advance(turn, state);
}

/** What is said after a "no" to the read-back. */
export function sayDecline(turn: Turn, form: Form, state: ConversationState): Say[] {
  const written = chooseVariant(form.decline, turn.tag, state.turns);
  return written === null ? sayOwn(turn, 'whatToChange') : [sayText(turn, written, state)];
}

/** Whether an intent only says something: it has no form and no desk. */
export const onlyReplies = (document: BotDocument, name: string): boolean => {
  const intent = findIntent(document, name);
  return intent !== undefined && intent.form === undefined && intent.desk === undefined;
};

/** The reply of an intent, with the values of its own message and of nothing before. */
export function replyOf(turn: Turn, { intent, values }: OfferedIntent): Say[] {
  const reply = chooseVariant(findIntent(turn.document, intent)?.reply, turn.tag, turn.state.turns);
  return reply === null ? [] : [{ text: renderMessage(reply, values, turn.tag, turn.document.region) }];
}

/** Puts wishes to those that wait, each intent once. */
export function withWaiting(state: ConversationState, wishes: readonly OfferedIntent[]): ConversationState {
  const known = new Set(state.waiting.map(({ intent }) => intent));
  return { ...state, waiting: [...state.waiting, ...wishes.filter(({ intent }) => !known.has(intent))] };
}
