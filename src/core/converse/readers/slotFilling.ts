import { exampleAnswer } from '../../bot/examples.js';
import { findEntity, kindOf, type EntityKind } from '../../bot/document.js';
import { sameValue, showValue, type SlotValue, type Values } from '../../recognise/value.js';
import { actOnIntent } from '../act.js';
import { answered, answerWords, corrects, namesSomething, type Filling } from '../answers.js';
import { changeEnd } from '../ends.js';
import { saysSomething } from '../fits.js';
import { freeValue } from '../freeWords.js';
import type { Clause } from '../hear.js';
import { askForNamed, namedSlots } from '../named.js';
import type { Say } from '../state.js';
import { tellAbout } from '../tell.js';
import type { GivenValues } from '../values.js';
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
import {
  acceptedIn,
  isSmallTalk,
  offeredFrom,
  onlyValues,
  replacesHeld,
  saysOnlyValues,
  valuesFor,
  type Stretches,
} from '../wishes.js';
import { dropHeld, entriesOf, heldOf } from '../../text/named.js';

/** Parts of a message that ask for something else than the open form. */
function foreignParts(filling: Filling): ReadPart[] {
  const { turn, open, asked } = filling;
  return turn.parts.filter((part) => {
    const intent = acceptedIn(part.recognition);
    if (intent === null || intent === open.intent || isSmallTalk(turn, intent)) return false;
    if (part.question) return true;
    const answers =
      asked !== undefined &&
      heldOf(valuesFor(turn, open.intent, { asked: asked.name, within: [part] }).given, asked.name) !== undefined;
    return part.request && !answers && !replacesHeld(turn, open, [part]);
  });
}

/** What an answer holds that is meant as a value of a kind that is written in one way. */
const WRITTEN: Readonly<Partial<Record<EntityKind, RegExp>>> = { pattern: /\d/, phone: /\d{3}/, email: /@/ };
/** A pattern of which no example can be written in plain letters. */
const NO_EXAMPLE = /[[\]|]/;

/** A code with a figure too few is told to be wrong, and how one looks. */
function notWritten({ turn, asked }: Filling, words: string): Say[] {
  const entity = asked && findEntity(turn.document, asked.entity);
  const form = entity && WRITTEN[entity.kind];
  if (!entity || !form?.test(words) || words.split(/\s+/).length > 2) return [];
  const example = exampleAnswer(entity, turn.language);
  return NO_EXAMPLE.test(example)
    ? sayOwn(turn, 'notKnown', { said: words })
    : sayOwn(turn, 'notWritten', { said: words, example });
}

/** Words that can be no value are told apart from words that were not understood. */
function unknownValue(filling: Filling, own: Stretches): Say[] {
  const { turn, asked } = filling;
  if (kindOf(turn.document, asked) !== 'list') return notWritten(filling, answerWords(turn, own).trim());
  const words = freeValue(answerWords(turn, own), turn.language);
  if (
    words === '' ||
    words.split(/\s+/).length > 4 ||
    !saysSomething(words, turn.language) ||
    turn.language.clauses.givesReason(turn.hearing.folded) ||
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
  if (heldOf(given, parked.asked) === undefined) return null;
  const next = takeAndAdvance(turn, state, given);
  return { ...next, acts: [...acts, ...next.acts], why: `the answer is for ${parked.form}` };
}

/** "And a mattress too": another thing beside the one held, where one is taken at a time; it replaces nothing. */
function furtherThings({ turn, form, open }: Filling, given: Values): string[] {
  const { document, hearing, language } = turn;
  const { clauses } = language;
  const counts = form.slots.some((slot) => kindOf(document, slot) === 'number');
  if (!counts || !clauses.adds(hearing.folded) || clauses.alters(hearing.folded)) return [];
  return form.slots
    .filter(
      (slot) =>
        kindOf(document, slot) === 'list' &&
        heldOf(open.values, slot.name) !== undefined &&
        heldOf(given, slot.name) !== undefined,
    )
    .map(({ name }) => name)
    .filter((name) => !sameValue(heldOf(open.values, name), heldOf(given, name)));
}

/** What a message gives while slots are filled. */
interface Heard {
  filling: Filling;
  /** Parts that ask for something else. */
  foreign: ReadPart[];
  content: readonly Clause[];
  /** Stretches of the form's own that ask nothing. */
  plain: Stretches;
  gathered: GivenValues;
  given: Values;
}

function hearValues(filling: Filling): Heard {
  const { turn } = filling;
  const foreign = foreignParts(filling);
  const { content } = turn.hearing;
  const own = foreign.length > 0 ? turn.parts.filter((part) => !foreign.includes(part)) : content;
  const plain = own.filter((stretch) => !asksIn(turn, stretch));
  const gathered = answered(filling, plain);
  const fromQuestions = foreign.length > 0 ? {} : valueOffered(filling, own);
  return { filling, foreign, content, plain, gathered, given: { ...fromQuestions, ...gathered.given } };
}

/** "Change the day": of what is being filled, before anything else. */
function namesHeldSlot({ filling: { turn, form, open }, content, given }: Heard): Reply | null {
  const mayName =
    turn.language.clauses.alters(turn.hearing.folded) && content.length > 0 && Object.keys(given).length === 0;
  const named = mayName ? namedSlots(turn, form, open) : [];
  const again = named.filter(({ name }) => heldOf(open.values, name) !== undefined);
  return again.length > 0 && !namesSomething(turn) && content.every(({ question }) => !question)
    ? askForNamed(turn, open, again)
    : null;
}

/** Whether the message as a whole wants something else, and gives nothing that was asked for. */
function wantsElse({ filling: { turn, open }, foreign, content, gathered, given }: Heard): boolean {
  const accepted = foreign.length > 0 ? null : acceptedIn(turn.matter);
  if (accepted === null || accepted === open.intent || isSmallTalk(turn, accepted)) return false;
  // Values alone ask for nothing else than what is open, whatever they resemble.
  if (saysOnlyValues(turn) || onlyValues(turn, open.intent, open.asked)) return false;
  const repeated =
    entriesOf(given).some(([slot, value]) => sameValue(heldOf(open.values, slot), value)) &&
    onlyValues(turn, open.intent);
  const answersAsked =
    open.asked !== null &&
    (heldOf(given, open.asked) !== undefined ||
      gathered.between?.slot === open.asked ||
      gathered.wrong.some(({ slot }) => slot === open.asked));
  return content.some(({ question }) => question) || !(answersAsked || repeated || corrects(open.values, given));
}

/** Nothing was taken: what is parked may be meant, or a value that no list has. */
function takeNothing({ filling, foreign, content, plain }: Heard): Reply | null {
  const { turn, asked } = filling;
  const inForeign = ({ start, end }: { start: number; end: number }) =>
    foreign.some((part) => part.start < end && start < part.end);
  if (foreign.length > 0 || content.some(inForeign)) return null;
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

/** Takes values, answers what was asked besides, and goes on. */
function takeValues({ filling: { turn, form }, foreign, gathered }: Heard, taken: Values): Reply {
  const names = Object.keys(taken);
  const state = { ...turn.state, tries: names.length > 0 ? 0 : turn.state.tries, choosing: null };
  const wishes = foreign.map((part) => ({ intent: acceptedIn(part.recognition)!, within: [part] }));
  const answers: Say[] = wishes
    .filter(({ intent }) => onlyReplies(turn.document, intent))
    .flatMap((wish) => actOnIntent({ ...turn, state: { ...state, open: null, parked: [], waiting: [] } }, wish).says);
  const later = wishes
    .filter(({ intent }) => !onlyReplies(turn.document, intent))
    .map((wish) => offeredFrom(turn, wish));
  const set = setValues(turn, withWaiting(state, later), taken);
  const next = tellAbout(turn, set.state, gathered) ?? advance(turn, set.state);
  const readBack = next.state.open?.stage === 'confirming' ? readBackOf(turn, form, set.state) : null;
  const told = sayChanges(turn, set.state, set.changed, readBack);
  const why =
    names.length > 0
      ? `the message gives ${names.map((slot) => slotGiven(slot, heldOf(taken, slot)!)).join(', ')}`
      : 'a value cannot be taken as it was given';
  return { ...next, says: [...answers, ...told, ...next.says], acts: [...set.acts, ...next.acts], why };
}

/** Values for the slot that was asked for, and any others offered with it. */
export const slotFillingReader: Reader = {
  name: 'slot filling',
  read(turn) {
    const current = openForm(turn);
    if (current?.open.stage !== 'filling') return null;
    const { open, form } = current;
    const asked = form.slots.find(({ name }) => name === open.asked);
    const heard = hearValues({ turn, form, open, asked });
    const { given, gathered, plain } = heard;
    const named = namesHeldSlot(heard);
    if (named) return named;
    if (wantsElse(heard)) return null;
    const end =
      open.asked !== null && heldOf(given, open.asked) !== undefined
        ? null
        : changeEnd(turn, { form, open }, given, plain);
    if (end) return end;
    const further = gathered.ordered ? [] : furtherThings(heard.filling, given);
    for (const slot of further) dropHeld(given, slot);
    if (further.length > 0) gathered.firstOf = valueWords(turn, heldOf(open.values, further[0]!)!);
    const taken = { ...tooEarly(form, open.values, given), ...applying(form, open.values, given) };
    const nothing =
      Object.keys(taken).length === 0 &&
      gathered.between === null &&
      gathered.wrong.length === 0 &&
      further.length === 0;
    return nothing ? takeNothing(heard) : takeValues(heard, taken);
  },
};

const slotGiven = (slot: string, value: SlotValue): string => `${slot} (${showValue(value)})`;

const asksIn = (turn: Turn, { start, end }: { start: number; end: number }): boolean =>
  turn.hearing.content.some((clause) => clause.question && clause.start < end && start < clause.end);

/** "Do you have half past three?": a question may offer the value that was asked for. */
function valueOffered(filling: Filling, own: Stretches): Values {
  const { turn, open, asked } = filling;
  if (!asked || !slotApplies(asked, open.values)) return {};
  const questions = turn.hearing.content.filter(
    (clause) =>
      clause.question &&
      turn.language.clauses.offersValue(clause.folded) &&
      own.some((part) => part.start < clause.end && clause.start < part.end),
  );
  if (questions.length === 0) return {};
  const { given } = valuesFor(turn, open.intent, { asked: asked.name, within: questions });
  return heldOf(given, asked.name) === undefined ? {} : { [asked.name]: heldOf(given, asked.name)! };
}
