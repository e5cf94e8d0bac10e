import { findEntity, kindOf, type Form, type Slot } from '../../bot/document.js';
import { sameValue, showValue, type SlotValue } from '../../recognise/value.js';
import { actOnIntent } from '../act.js';
import { changeEnd, sharesWord } from '../ends.js';
import { bareNumber, numberFor, onlyValue, saysSomething } from '../fits.js';
import { freeValue, mayBe, TAKES_ANY_WORDS } from '../freeWords.js';
import { askForNamed, namedSlots } from '../named.js';
import { alters } from '../phrases.js';
import type { OpenForm, Say } from '../state.js';
import { tellAbout } from '../tell.js';
import {
  advance,
  applying,
  askAgain,
  countMiss,
  onlyReplies,
  openForm,
  readBackOf,
  sayChanges,
  sayOwn,
  setValues,
  slotApplies,
  takeAndAdvance,
  tooEarly,
  valueWords,
  withWaiting,
  type ReadPart,
  type Reader,
  type Reply,
  type Turn,
} from '../turn.js';
import type { GivenValues } from '../values.js';
import { acceptedIn, isSmallTalk, offeredFrom, onlyValues, valuesFor, type Stretches } from '../wishes.js';

interface Filling {
  turn: Turn;
  form: Form;
  open: OpenForm;
  /** The slot that was asked for. */
  asked: Slot | undefined;
}

/** Parts of a message that ask for something else than the open form. */
function foreignParts({ turn, open, asked }: Filling): ReadPart[] {
  return turn.parts.filter((part) => {
    const intent = acceptedIn(part.recognition);
    if (intent === null || intent === open.intent || isSmallTalk(turn, intent)) return false;
    if (part.question) return true;
    const answers =
      asked !== undefined &&
      valuesFor(turn, open.intent, { asked: asked.name, within: [part] }).given[asked.name] !== undefined;
    return part.request && !answers;
  });
}

/** Whether an answer changes values that were already given, and so is a correction rather than free words. */
const corrects = (held: Record<string, SlotValue>, given: Record<string, SlotValue>): boolean =>
  Object.entries(given).some(([slot, value]) => held[slot] !== undefined && !sameValue(held[slot], value));

/** Values of kinds that are known wherever they stand: codes, mail addresses, telephone numbers. */
const IDENTIFYING = ['pattern', 'email', 'phone', 'url'];

const namesSomething = ({ matter, document }: Turn): boolean =>
  matter.slots.some(({ entity }) => IDENTIFYING.includes(findEntity(document, entity)?.kind ?? ''));

/** Whether a message is a whole other request, and no free words for the slot that was asked for. */
function asksForElse({ turn, open, asked }: Filling): boolean {
  const intent = acceptedIn(turn.matter);
  if (intent === null || intent === open.intent || isSmallTalk(turn, intent)) return false;
  const { hearing } = turn;
  if (hearing.content.some(({ question }) => question)) return true;
  if (kindOf(turn.document, asked) !== 'free') return true;
  return (
    namesSomething(turn) ||
    /(?:^| )(?:i|we) (?:want|need|would like|d like)(?: |$)|(?:^| )(?:id|wed) like(?: |$)/.test(hearing.folded)
  );
}

/** The words of an answer, without what only steers and without questions. */
function answerWords(turn: Turn, own: Stretches): string {
  const [first, last] = [own[0], own.at(-1)];
  if (!first || !last) return '';
  // What stands between two clauses of an answer belongs to it, unless it steers.
  const whole = turn.hearing.clauses.every(
    ({ start, end, steering }) => steering === null || end <= first.start || start >= last.end,
  );
  return whole
    ? turn.text.slice(first.start, last.end)
    : own.map(({ start, end }) => turn.text.slice(start, end)).join(' ');
}

/** What an answer that no finder read gives to the slot that was asked for. */
function unreadAnswer(filling: Filling, own: Stretches, given: Record<string, SlotValue>): SlotValue | undefined {
  const { turn, asked, open } = filling;
  const words = answerWords(turn, own);
  if (!asked || words.trim() === '') return undefined;
  const kind = kindOf(turn.document, asked);
  if (kind === 'list') return onlyValue(turn.document, asked, words);
  if (!TAKES_ANY_WORDS.includes(kind)) return undefined;
  const altered = corrects(open.values, given) && (alters(turn.hearing.folded) || kind !== 'free');
  if (altered || asksForElse(filling)) return undefined;
  const value = freeValue(words);
  return mayBe(kind, value) ? value : undefined;
}

/** A figure that is all an answer says fills the slot that was asked for, and no other. */
function figureAnswer(filling: Filling, own: Stretches): Record<string, SlotValue> | null {
  const { turn, asked } = filling;
  if (!asked) return null;
  const number = bareNumber(answerWords(turn, own));
  if (!number || Object.keys(figureCorrection(filling, own)).length > 0) return null;
  const value = numberFor(turn.document, asked, number, turn.now);
  if (value !== undefined) return { [asked.name]: value };
  return kindOf(turn.document, asked) === 'number' ? null : {};
}

/** "No, 4" in answer to another question: a figure that corrects the one value held that it can be. */
function figureCorrection({ turn, form, open }: Filling, own: Stretches): Record<string, SlotValue> {
  const number =
    alters(turn.hearing.folded) || turn.hearing.says('no', 'wait') ? bareNumber(answerWords(turn, own)) : null;
  if (!number) return {};
  const fits = form.slots.flatMap((slot): [string, SlotValue][] => {
    const kind = kindOf(turn.document, slot);
    const held = open.values[slot.name];
    if (
      held === undefined ||
      (kind !== 'number' && kind !== 'money' && kind !== 'time' && !(kind === 'date' && number.named))
    )
      return [];
    const value = numberFor(turn.document, slot, number, turn.now, held);
    return value === undefined ? [] : [[slot.name, value]];
  });
  const amounts = fits.filter(
    ([slot]) =>
      kindOf(
        turn.document,
        form.slots.find(({ name }) => name === slot),
      ) === 'number',
  );
  const likely = amounts.length > 0 ? amounts : fits;
  return likely.length === 1 ? Object.fromEntries(likely) : {};
}

/** What the customer means by "the same as before" for the slot that was asked for. */
function asBefore({ turn, form, open, asked }: Filling): Record<string, SlotValue> {
  const { remembered } = turn.state;
  if (!asked || !turn.hearing.says('asBefore')) return {};
  // "The same address" is of the address, whatever was asked for.
  const always = form.slots.map(({ when: _, ...slot }): Slot => slot);
  const named = namedSlots(turn, { ...form, slots: always }, open).map(({ name }) => name);
  if (named.length > 0 && !named.includes(asked.name)) {
    return Object.fromEntries(
      named.flatMap((name) => (remembered[name] === undefined ? [] : [[name, remembered[name]]])),
    );
  }
  const own = remembered[asked.name];
  if (own !== undefined) return { [asked.name]: own };
  // Another form may call it otherwise: the slot of the same entity.
  const names = turn.document.forms
    .filter((other) => other !== form)
    .flatMap(({ slots }) => slots.filter(({ entity }) => entity === asked.entity).map(({ name }) => name));
  const name = names.find((candidate) => remembered[candidate] !== undefined);
  return name === undefined ? {} : { [asked.name]: remembered[name]! };
}

/** "I don't mind" takes the slot's default, where it has one. */
function byDefault({ turn, asked }: Filling): Record<string, SlotValue> {
  const { hearing } = turn;
  if (asked?.default === undefined || !hearing.onlySteers || !hearing.says('indifferent')) return {};
  return { [asked.name]: asked.default };
}

/** A value goes to the slot that was asked for rather than to another of its kind that holds one already. */
function toAsked({ turn, form, open, asked }: Filling, given: Record<string, SlotValue>): Record<string, SlotValue> {
  if (!asked || given[asked.name] !== undefined || alters(turn.hearing.folded)) return given;
  const rival = form.slots.find(
    ({ name, entity }) =>
      entity === asked.entity &&
      given[name] !== undefined &&
      open.values[name] !== undefined &&
      !sharesWord(name, turn.text),
  );
  if (!rival) return given;
  const { [rival.name]: value, ...rest } = given;
  return { ...rest, [asked.name]: value! };
}

function answered(filling: Filling, own: Stretches): GivenValues {
  const { turn, open, asked, form } = filling;
  const read = valuesFor(turn, open.intent, { asked: open.asked, within: own, held: open.values });
  const figure = figureAnswer(filling, own);
  const isRead =
    asked !== undefined && read.given[asked.name] !== undefined && kindOf(turn.document, asked) !== 'number';
  const kindOfSlot = (slot: string) =>
    kindOf(
      turn.document,
      form.slots.find(({ name }) => name === slot),
    );
  if (figure !== null && !isRead && read.wrong.length === 0) {
    // What is more than a figure is kept: "at eight" is a time, whatever was asked for.
    const said = Object.entries(read.given).filter(
      ([slot]) => open.values[slot] !== undefined && kindOfSlot(slot) === 'time',
    );
    const given = Object.keys(figure).length > 0 ? figure : Object.fromEntries(said);
    return { ...read, given, between: null, firstOf: null };
  }
  const kind = kindOf(turn.document, asked);
  const isNew = Object.keys(read.given).every((slot) => open.values[slot] === undefined && slot !== open.asked);
  const corrected = isNew ? figureCorrection(filling, own) : {};
  const found = Object.keys(corrected).length > 0 ? {} : toAsked(filling, read.given);
  const given = { ...asBefore(filling), ...byDefault(filling), ...corrected, ...found };
  const isNumber = (slot: string) => kindOfSlot(slot) === 'number';
  Object.assign(given, nameBeside(filling, own, given));
  const free = asked && given[asked.name] === undefined ? unreadAnswer(filling, own, given) : undefined;
  if (asked && free !== undefined) {
    given[asked.name] = free;
    // The number of a house, or a figure within free words, is no amount.
    if (kind === 'address' || kind === 'free') {
      for (const slot of Object.keys(given)) if (slot !== asked.name && isNumber(slot)) delete given[slot];
    }
  }
  if (
    asked &&
    kind === 'free' &&
    typeof given[asked.name] === 'string' &&
    own.length > 0 &&
    !corrects(open.values, given)
  ) {
    given[asked.name] = wholeAnswer(filling, own, given[asked.name] as string);
  }
  return { ...read, given };
}

/** A name that stands beside other values, and nothing else: "Ann Teague, 07700 900777". */
function nameBeside(
  { turn, form, open }: Filling,
  own: Stretches,
  given: Record<string, SlotValue>,
): Record<string, SlotValue> {
  const slots = form.slots.filter(
    (slot) =>
      kindOf(turn.document, slot) === 'person' &&
      slotApplies(slot, open.values) &&
      open.values[slot.name] === undefined &&
      given[slot.name] === undefined,
  );
  if (slots.length !== 1 || Object.keys(given).length === 0) return {};
  const values = turn.recognition.entities;
  const rest = own
    .map(({ start, end }) => {
      const inside = values.filter((value) => value.start >= start && value.end <= end);
      return inside.reduceRight(
        (words, value) => `${words.slice(0, value.start - start)} ${words.slice(value.end - start)}`,
        turn.text.slice(start, end),
      );
    })
    .join(' ')
    .replace(/[,;.:]|\s+and\s*$|^\s*and\s/gu, ' ')
    .trim();
  const isName = /^\p{Lu}[\p{L}'’-]+(?:\s+\p{Lu}[\p{L}'’-]+){0,2}$/u.test(rest) && mayBe('person', rest);
  return isName ? { [slots[0]!.name]: rest.replace(/\s+/gu, ' ') } : {};
}

/** Free words that were asked for are all of the answer, though the tagger took a part of it. */
function wholeAnswer({ turn, form, asked }: Filling, own: Stretches, read: string): string {
  const words = answerWords(turn, own);
  const value = freeValue(words);
  const others = turn.recognition.entities.filter(({ entity }) =>
    form.slots.some((slot) => slot !== asked && slot.entity === entity),
  );
  const extra = value.replace(read, '').trim().split(/\s+/).length;
  return others.length === 0 && value.includes(read) && extra <= MOST_ADDED && mayBe('free', value) ? value : read;
}

const MOST_ADDED = 6;

/** Words that a list has no value for are told apart from words that were not understood. */
function unknownValue({ turn, asked }: Filling, own: Stretches): Say[] {
  if (kindOf(turn.document, asked) !== 'list') return [];
  const words = freeValue(answerWords(turn, own));
  if (
    words === '' ||
    words.split(/\s+/).length > 4 ||
    !saysSomething(words) ||
    turn.hearing.content.some(({ question }) => question)
  )
    return [];
  return sayOwn(turn, 'notKnown', { said: words });
}

/**
 * A form that was put aside for this one goes on, where the customer answers what it had asked, or wants nothing of this
 * one: the message that opened it was perhaps misread.
 */
function backToParked({ turn, open }: Filling, content: Stretches): Reply | null {
  const parked = turn.state.parked.at(-1);
  if (!parked) return null;
  const acts = [
    { act: 'cancel' as const, form: open.form },
    { act: 'resumeForm' as const, form: parked.form },
  ];
  const state = { ...turn.state, open: parked, parked: turn.state.parked.slice(0, -1), tries: 0 };
  if (turn.hearing.onlySteers) {
    if (!turn.hearing.says('no')) return null;
    return { ...askAgain(turn, state), acts, why: `the customer does not want ${open.form}` };
  }
  if (parked.asked === null || content.some((clause) => asksIn(turn, clause))) return null;
  const { given } = valuesFor(turn, parked.intent, { asked: parked.asked, held: parked.values });
  if (given[parked.asked] === undefined) return null;
  const next = takeAndAdvance(turn, state, given);
  return { ...next, acts: [...acts, ...next.acts], why: `the answer is for ${parked.form}` };
}

const ADDS = /^(?:and|also|plus|oh and)(?= )|(?: |^)(?:too|as well|also|in addition|on top)(?: |$)/;

/** "And a mattress too": another thing beside the one held, where one is taken at a time; it replaces nothing. */
function furtherThings({ turn, form, open }: Filling, given: Record<string, SlotValue>): string[] {
  const { document, hearing } = turn;
  const counts = form.slots.some((slot) => kindOf(document, slot) === 'number');
  if (!counts || !ADDS.test(hearing.folded) || alters(hearing.folded)) return [];
  return form.slots
    .filter(
      (slot) =>
        kindOf(document, slot) === 'list' && open.values[slot.name] !== undefined && given[slot.name] !== undefined,
    )
    .map(({ name }) => name)
    .filter((name) => !sameValue(open.values[name], given[name]));
}

/** Values for the slot that was asked for, and any others offered with it. */
export const slotFillingReader: Reader = {
  name: 'slot filling',
  read(turn) {
    const current = openForm(turn);
    if (current?.open.stage !== 'filling') return null;
    const { open, form } = current;
    const asked = form.slots.find(({ name }) => name === open.asked);
    const filling: Filling = { turn, form, open, asked };
    const foreign = foreignParts(filling);
    const inForeign = ({ start, end }: { start: number; end: number }) =>
      foreign.some((part) => part.start < end && start < part.end);
    const content = turn.hearing.content;
    const own = foreign.length > 0 ? turn.parts.filter((part) => !foreign.includes(part)) : content;
    const plain = own.filter((stretch) => !asksIn(turn, stretch));
    const read = answered(filling, plain);
    const fromQuestions = foreign.length > 0 ? {} : valueOffered(filling, own);
    const given = { ...fromQuestions, ...read.given };
    const accepted = foreign.length > 0 ? null : acceptedIn(turn.matter);
    const other = accepted !== null && accepted !== open.intent && !isSmallTalk(turn, accepted);
    const repeated =
      Object.entries(given).some(([slot, value]) => sameValue(open.values[slot], value)) &&
      onlyValues(turn, open.intent);
    const answersAsked =
      open.asked !== null && (given[open.asked] !== undefined || read.wrong.some(({ slot }) => slot === open.asked));
    // "Change the day": of what is being filled, before anything else.
    const mayName = alters(turn.hearing.folded) && content.length > 0 && Object.keys(given).length === 0;
    const named = mayName ? namedSlots(turn, form, open) : [];
    const again = named.filter(({ name }) => open.values[name] !== undefined);
    if (again.length > 0 && !namesSomething(turn) && content.every(({ question }) => !question))
      return askForNamed(turn, open, again);
    if (
      other &&
      (content.some(({ question }) => question) || !(answersAsked || repeated || corrects(open.values, given)))
    )
      return null;

    const end =
      open.asked !== null && given[open.asked] !== undefined ? null : changeEnd(turn, form, open, given, plain);
    if (end) return end;
    const further = furtherThings(filling, given);
    for (const slot of further) delete given[slot];
    const taken = { ...tooEarly(form, open.values, given), ...applying(form, open.values, given) };
    const names = Object.keys(taken);
    const state = { ...turn.state, tries: names.length > 0 ? 0 : turn.state.tries, choosing: null };
    const wishes = foreign.map((part) => ({ intent: acceptedIn(part.recognition)!, within: [part] }));
    if (further.length > 0) read.firstOf = valueWords(turn, open.values[further[0]!]!);
    if (names.length === 0 && read.between === null && read.wrong.length === 0 && further.length === 0) {
      if (wishes.length > 0 || content.some(inForeign)) return null;
      const back = backToParked(filling, content);
      if (back) return back;
      const unknown = unknownValue(filling, plain);
      if (unknown.length === 0) return null;
      const missed = countMiss(turn, (next) => {
        const again = askAgain(turn, next);
        return { ...again, says: [...unknown, ...again.says] };
      });
      return { ...missed, why: `no value of ${asked?.name} is called that` };
    }
    const answers: Say[] = wishes
      .filter(({ intent }) => onlyReplies(turn.document, intent))
      .flatMap((wish) => actOnIntent({ ...turn, state: { ...state, open: null, parked: [], waiting: [] } }, wish).says);
    const later = wishes
      .filter(({ intent }) => !onlyReplies(turn.document, intent))
      .map((wish) => offeredFrom(turn, wish));
    const set = setValues(turn, withWaiting(state, later), taken);
    const next = tellAbout(turn, set.state, read) ?? advance(turn, set.state);
    const readBack = next.state.open?.stage === 'confirming' ? readBackOf(turn, form, set.state) : null;
    const told = sayChanges(turn, set.state, set.changed, readBack);
    const why =
      names.length > 0
        ? `the message gives ${names.map((slot) => slotGiven(slot, taken[slot]!)).join(', ')}`
        : 'a value cannot be taken as it was given';
    return { ...next, says: [...answers, ...told, ...next.says], acts: [...set.acts, ...next.acts], why };
  },
};

const slotGiven = (slot: string, value: SlotValue): string => `${slot} (${showValue(value)})`;

const asksIn = (turn: Turn, { start, end }: { start: number; end: number }): boolean =>
  turn.hearing.content.some((clause) => clause.question && clause.start < end && start < clause.end);

/** "Do you have half past three?": a question may offer the value that was asked for. */
function valueOffered(filling: Filling, own: Stretches): Record<string, SlotValue> {
  const { turn, open, asked } = filling;
  if (!asked || !slotApplies(asked, open.values)) return {};
  const questions = turn.hearing.content.filter(
    (clause) =>
      clause.question &&
      OFFERS_VALUE.test(clause.folded) &&
      own.some((part) => part.start < clause.end && clause.start < part.end),
  );
  if (questions.length === 0) return {};
  const { given } = valuesFor(turn, open.intent, { asked: asked.name, within: questions });
  return given[asked.name] === undefined ? {} : { [asked.name]: given[asked.name]! };
}

const OFFERS_VALUE =
  /^(?:(?:um|er|oh|well|so|and|ok) )*(?:do you (?:have|do|sell)|have you (?:got )?|is there|are there|is|are|what about|how about|would|does)(?= )/;
