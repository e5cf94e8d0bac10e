import { kindOf, kindOfSlot, type Form, type Slot } from '../../bot/document.js';
import type { Language } from '../../language/language.js';
import { sameValue, showValue, type SlotValue, type Values } from '../../recognise/value.js';
import { actOnIntent, actOnWishes, type Wanted } from '../act.js';
import { askWhichSlot, changeEnd, type SlotFit } from '../ends.js';
import { partsOf, type Clause } from '../hear.js';
import { bareNumber, numberFor, type BareNumber } from '../fits.js';
import { askForNamed, namedSlots } from '../named.js';
import { foldPhrase } from '../../text/foldPhrase.js';
import type { OpenForm, Say } from '../state.js';
import { remarksOn, tellAbout } from '../tell.js';
import { doesWhatIsAsked } from './commands.js';
import {
  advance,
  applying,
  complete,
  leave,
  matterOf,
  onlyReplies,
  openForm,
  sayClarification,
  sayDecline,
  slotApplies,
  takeAndAdvance,
  withWaiting,
  type Doing,
  type Reader,
  type Reply,
  type Turn,
} from '../turn.js';
import {
  acceptedIn,
  isSmallTalk,
  offeredCandidates,
  offeredFrom,
  replacesHeld,
  saysOnlyValues,
  valuesFor,
  wishesOf,
  type Stretches,
} from '../wishes.js';
import type { GivenValues } from '../values.js';
import { entriesOf, heldBy, heldOf } from '../../text/named.js';

/** Whether some words ask for nothing: no question, no request, no order. */
const asksNothing = ({ question, request, folded }: Clause, { naming }: Language): boolean =>
  !question && !request && !naming.isVerb(folded.split(' ')[0]!);

/** "Make it leave Tuesday" alters what is read back, whatever other intent is taught with such words. */
const altersIt = ({ question, request, folded }: Clause, { clauses }: Language): boolean =>
  !question && !request && clauses.alters(folded) && clauses.pointsBack(folded);

/** The other wishes of a message, beside what it says to the read-back. */
function otherWishes(turn: Turn, form: Form, open: OpenForm): Wanted[] {
  const current = open.intent;
  const replaces = replacesHeld(turn, open, turn.hearing.content);
  const wishes = wishesOf(turn).filter(
    ({ intent }) => intent !== current && (!replaces || onlyReplies(turn.document, intent)),
  );
  if (wishes.length > 0 || replaces) return wishes;
  const accepted = turn.hearing.onlySteers ? null : acceptedIn(turn.matter);
  const { content } = turn.hearing;
  const given = Object.keys(valuesFor(turn, current, { within: content }).given);
  // "The quantity, I want two hundred" tells what of this is to be otherwise.
  const isNamed = () => namedSlots(turn, form, open).some(({ name }) => given.includes(name));
  const answers =
    given.length > 0 &&
    (content.every((clause) => asksNothing(clause, turn.language) || altersIt(clause, turn.language)) ||
      (content.every(({ question }) => !question) && isNamed()));
  const isOther = accepted !== null && accepted !== current && !isSmallTalk(turn, accepted);
  if (isOther && !answers && !saysOnlyValues(turn)) {
    return [{ intent: accepted, within: content }];
  }
  const part = turn.parts.find(({ recognition, question, request }) => {
    const intent = acceptedIn(recognition);
    return intent !== null && intent !== current && !isSmallTalk(turn, intent) && (question || request);
  });
  return part ? [{ intent: acceptedIn(part.recognition)!, within: [part] }] : [];
}

const covers = (within: Stretches | undefined, { start, end }: { start: number; end: number }): boolean =>
  within?.some((part) => part.start < end && start < part.end) ?? false;

/** Values that a message changes; those that the form holds already are none. */
function changesIn(
  turn: Turn,
  form: Form,
  open: OpenForm,
  within: Stretches,
): { gathered: GivenValues; changed: Values; same: boolean } {
  const gathered = valuesFor(turn, open.intent, { asked: open.asked, within, held: open.values });
  const given = applying(form, open.values, gathered.given);
  const changed = entriesOf(given).filter(([slot, value]) => !sameValue(heldOf(open.values, slot), value));
  return { gathered, changed: heldBy(changed), same: changed.length < Object.keys(given).length };
}

/** The figure that is all a message says of the matter. */
const figureSaid = (turn: Turn): BareNumber | null => bareNumber(matterOf(turn.hearing), turn.language);

/** "Make it the 15": the slots that a bare figure could be for, with what it would be there. */
function fitsOf(turn: Turn, form: Form, open: OpenForm): SlotFit[] | null {
  const number = figureSaid(turn);
  if (!number?.named) return null;
  return form.slots.flatMap((slot) => {
    if (!slotApplies(slot, open.values)) return [];
    const value = slotTakesNamed(turn, slot, number);
    return value === undefined || sameValue(heldOf(open.values, slot.name), value) ? [] : [{ slot: slot.name, value }];
  });
}

/** An amount has no article: "the 15" is one of several, or a day. */
function slotTakesNamed(turn: Turn, slot: Slot, number: BareNumber): SlotValue | undefined {
  const value = numberFor(turn.document, slot, number, {
    today: turn.now,
    held: heldOf(turn.state.open?.values ?? {}, slot.name),
  });
  return value === number.value
    ? undefined
    : typeof value === 'string' && /^\d\d:\d\d$/.test(value)
      ? undefined
      : value;
}

/** A read-back that a message may correct, with what of the message may do so. */
interface Correcting {
  form: Form;
  open: OpenForm;
  own: Stretches;
}

/** "No, it's 16": the number of the house in an address, where a figure can be nothing else. */
function houseNumber(turn: Turn, { form, open, own }: Correcting): Values {
  const number = own.length > 0 ? figureSaid(turn) : null;
  const addresses = form.slots.filter((slot) => kindOf(turn.document, slot) === 'address');
  const held = addresses.length === 1 ? heldOf(open.values, addresses[0]!.name) : undefined;
  if (!number?.digits || typeof held !== 'string' || !/^\d+[a-z]?(?= )/i.test(held)) return {};
  return { [addresses[0]!.name]: held.replace(/^\d+[a-z]?/i, number.digits) };
}

/** "No, it was fifty", "it's 8": what a bare figure is for the one slot of a kind that holds something. */
function figureFor(kind: 'money' | 'time', turn: Turn, { form, open, own }: Correcting): Values {
  const number = own.length > 0 ? figureSaid(turn) : null;
  const [slot, ...more] = form.slots.filter(
    (item) => kindOf(turn.document, item) === kind && heldOf(open.values, item.name) !== undefined,
  );
  if (!number || !slot || more.length > 0) return {};
  const value = numberFor(turn.document, slot, number, { today: turn.now, held: heldOf(open.values, slot.name) });
  return value === undefined ? {} : { [slot.name]: value };
}

/** Where a figure is for an amount, for the number of a house or for an hour: what it would be for each. */
function amountOrOther(turn: Turn, correcting: Correcting, changed: Values): SlotFit[] {
  const { form, own } = correcting;
  const said = own.map((clause) => turn.text.slice(clause.start, clause.end)).join(' ');
  const [[amount, value] = [], ...others] = entriesOf(changed);
  if (amount === undefined || others.length > 0 || !turn.language.clauses.saysWhatIs(foldPhrase(said))) return [];
  const isAmount = kindOfSlot(turn.document, form, amount) === 'number';
  if (!isAmount) return [];
  const rivals = [...entriesOf(houseNumber(turn, correcting)), ...entriesOf(figureFor('time', turn, correcting))];
  return rivals.length === 0 ? [] : [[amount, value!] as const, ...rivals].map(([slot, is]) => ({ slot, value: is }));
}

function readCorrection(turn: Turn, form: Form, open: OpenForm, own: Stretches): Reply | null {
  const { state } = turn;
  const fits = own.length > 0 ? fitsOf(turn, form, open) : null;
  if (fits && fits.length > 0) {
    const said = figureSaid(turn)!.words;
    if (fits.length > 1) return askWhichSlot(turn, open, said, fits);
    const { slot, value } = fits[0]!;
    return { ...takeAndAdvance(turn, { ...state, tries: 0 }, { [slot]: value }), why: `the customer corrects ${slot}` };
  }
  const correcting = { form, open, own };
  const { gathered, changed: byValues } = changesIn(turn, form, open, own);
  const changed =
    [byValues, houseNumber(turn, correcting), figureFor('money', turn, correcting)].find(
      (values) => Object.keys(values).length > 0,
    ) ?? {};
  const either = amountOrOther(turn, correcting, changed);
  if (either.length > 1) return askWhichSlot(turn, open, showValue(either[0]!.value), either);
  const end = changeEnd(turn, { form, open }, changed, own);
  if (end) return end;
  const names = Object.keys(changed);
  const told = remarksOn(turn, gathered);
  if (names.length === 0 && gathered.between === null && told.length === 0) return null;
  // Other slots that are named besides are asked for ("change the day, and make it four").
  const filled = takeAndAdvance(turn, { ...state, tries: 0 }, changed);
  const telling =
    gathered.between !== null || told.length > 0
      ? tellAbout(turn, filled.state.open ? filled.state : state, gathered)
      : null;
  const next = telling && filled.state.open ? { ...telling, acts: [...filled.acts, ...telling.acts] } : filled;
  return {
    ...next,
    why: names.length > 0 ? `the customer corrects ${names.join(', ')}` : 'a value cannot be taken as it was given',
  };
}

/** "And the day to Friday": more free words for the one slot that holds such. */
function addWords(turn: Turn, form: Form, open: OpenForm): Reply | null {
  const [clause, ...others] = turn.hearing.content;
  if (
    !clause ||
    others.length > 0 ||
    clause.question ||
    turn.hearing.clauses.length > 1 ||
    !turn.language.clauses.beginsByAdding(clause.text)
  )
    return null;
  const [slot, ...more] = form.slots.filter(
    (item) => kindOf(turn.document, item) === 'free' && heldOf(open.values, item.name) !== undefined,
  );
  const held = slot && heldOf(open.values, slot.name);
  if (!slot || more.length > 0 || typeof held !== 'string') return null;
  if (Object.keys(changesIn(turn, form, open, [clause]).gathered.given).length > 0) return null;
  const value = `${held}, ${clause.text.replace(/[\s.]+$/u, '')}`;
  return {
    ...takeAndAdvance(turn, { ...turn.state, tries: 0 }, { [slot.name]: value }),
    why: `the customer adds to ${slot.name}`,
  };
}

function askWhatToChange(turn: Turn, form: Form, open: OpenForm, why: string): Reply {
  const state = { ...turn.state, tries: 0, open: { ...open, stage: 'changing' as const, asked: null } };
  return { state, says: sayDecline(turn, form, state), acts: [], why };
}

/** A "no" that ends the form: at once where the form says so, for "no, keep it", and at the second no. */
function leaveForm(turn: Turn, form: Form): Reply {
  const words = form.onNo === 'leave' ? sayDecline(turn, form, turn.state) : undefined;
  return { ...leave(turn, words), why: 'the customer does not want it' };
}

/** A question or a request beside a yes that the gate is unsure of is asked about once the form is done. */
function askAboutRest(turn: Turn, done: Doing): Doing {
  const { state } = done;
  const said = [...turn.hearing.content, ...partsOf(turn.hearing)];
  const asks = said.some(({ question, request }) => question || request) && turn.matter.decision === 'ask';
  if (!asks || state.open || state.offered || state.choosing) return done;
  const candidates = offeredCandidates(turn);
  if (candidates.length === 0) return done;
  const choosing = candidates.map((intent) => ({ intent, values: {} }));
  return { ...done, state: { ...state, choosing }, says: [...done.says, ...sayClarification(turn, candidates)] };
}

function sayYes(turn: Turn, wishes: readonly Wanted[]): Reply {
  const why = 'the customer says yes to the read-back';
  const [replies, others] = [
    wishes.filter(({ intent }) => onlyReplies(turn.document, intent)),
    wishes.filter(({ intent }) => !onlyReplies(turn.document, intent)),
  ];
  const waiting = withWaiting(turn.state, []);
  const done = complete(turn, waiting);
  let next = { ...done };
  for (const wish of replies) {
    // The answer comes after what is done, and changes nothing of where the conversation stands.
    const answer = actOnIntent({ ...turn, state: { ...done.state, open: null, parked: [], waiting: [] } }, wish);
    next = { ...next, says: [...next.says, ...answer.says] };
  }
  const [first, ...rest] = others;
  if (next.state.outcome === 'handed_off') return { ...next, why };
  if (!first) return { ...(wishes.length > 0 ? next : askAboutRest(turn, next)), why };
  const later = withWaiting(
    { ...next.state, offered: null },
    rest.map(({ intent, within }) => offeredFrom(turn, { intent, within: [...(within ?? [])] })),
  );
  const acted = actOnIntent({ ...turn, state: later }, { ...first, before: next.says });
  return { ...acted, acts: [...next.acts, ...acted.acts], why };
}

const FEWEST_WORDS = 4;

/** A few words after a "no" that ask for nothing: "no, the pod". */
const saysTooLittle = (clause: Clause, language: Language): boolean =>
  asksNothing(clause, language) && clause.folded.split(' ').length < FEWEST_WORDS;

/** What stands when the customer answers a read-back, or is asked what to change. */
interface Standing {
  turn: Turn;
  form: Form;
  open: OpenForm;
  /** Whether the read-back is open; otherwise the customer was asked what to change. */
  confirming: boolean;
  questions: Clause[];
  /** What else is wanted. */
  wishes: Wanted[];
  /** Clauses that are neither questions nor wishes. */
  own: Clause[];
  named: Slot[];
  yes: boolean;
  no: boolean;
}

function standingIn(turn: Turn): Standing | null {
  const current = openForm(turn);
  if (!current || current.open.stage === 'filling') return null;
  const { open, form } = current;
  const { hearing } = turn;
  const wishes = otherWishes(turn, form, open);
  return {
    turn,
    form,
    open,
    confirming: open.stage === 'confirming',
    questions: hearing.content.filter(({ question }) => question),
    wishes,
    own: hearing.content.filter((clause) => !clause.question && !wishes.some(({ within }) => covers(within, clause))),
    named: wishes.length > 0 ? [] : namedSlots(turn, form, open),
    yes: hearing.says('yes') || doesWhatIsAsked(turn) || (hearing.says('ok') && hearing.onlySteers),
    no: hearing.says('no'),
  };
}

/** One way of answering; `null` where the customer did not answer so. */
type Answer = (standing: Standing) => Reply | null;

const letsBe: Answer = ({ turn, form, confirming, yes, no }) =>
  confirming && turn.hearing.onlySteers && turn.hearing.says('keep', 'nothing') && !(yes && !no)
    ? leaveForm(turn, form)
    : null;

const addsWords: Answer = ({ turn, form, open, confirming, wishes }) =>
  confirming && wishes.length === 0 ? addWords(turn, form, open) : null;

const givesCorrection: Answer = ({ turn, form, open, wishes, own }) => {
  const { state, document } = turn;
  const corrected = wishes.length > 0 && own.length === 0 ? null : readCorrection(turn, form, open, own);
  if (!corrected) return null;
  const answers = wishes.filter(({ intent }) => onlyReplies(document, intent));
  const said = answers.flatMap(
    (wish): Say[] => actOnIntent({ ...turn, state: { ...state, open: null, parked: [], waiting: [] } }, wish).says,
  );
  return { ...corrected, says: [...said, ...corrected.says] };
};

const saysNoInFewWords: Answer = ({ turn, form, open, confirming, no, wishes }) =>
  confirming && no && wishes.length > 0 && turn.hearing.content.every((clause) => saysTooLittle(clause, turn.language))
    ? askWhatToChange(turn, form, open, 'the customer says no to the read-back, with too few words for a request')
    : null;

const saysYes: Answer = ({ turn, confirming, yes, no, own, named, wishes }) => {
  const denies = no || turn.hearing.says('wait') || own.some(({ folded }) => turn.language.clauses.denies(folded));
  if (!confirming || !yes || no || (named.length > 0 && denies)) return null;
  return own.every(({ folded }) => !turn.language.clauses.makesException(folded)) ? sayYes(turn, wishes) : null;
};

const namesSlots: Answer = ({ turn, open, named, questions }) =>
  named.length > 0 && questions.length === 0 ? askForNamed(turn, open, named) : null;

/** A whole request in place of the answer is that request; "instead" lets the form go. */
const wantsElse: Answer = ({ turn, open, no, wishes, own }) => {
  if (!no || wishes.length === 0 || own.length > 0) return null;
  const { state, hearing } = turn;
  const instead = turn.language.clauses.replaces(hearing.folded);
  const base = instead ? { ...state, open: null, last: open } : state;
  return actOnWishes({ ...turn, state: base }, wishes, 'the customer wants something else');
};

const changesNothing: Answer = ({ turn, form, confirming, no }) => {
  const { state, hearing } = turn;
  if (confirming || !hearing.onlySteers || !hearing.says('nothing', 'ok', 'yes') || no) return null;
  return hearing.says('ok', 'yes')
    ? { ...advance(turn, { ...state, tries: 0 }), why: 'there is nothing to change' }
    : leaveForm(turn, form);
};

const saysNo: Answer = ({ turn, form, open, confirming, no, own, questions }) => {
  if ((!no && !turn.hearing.says('keep')) || questions.length > 0) return null;
  const again = !confirming || form.onNo === 'leave';
  if (again && own.length === 0) return leaveForm(turn, form);
  return confirming && (own.length === 0 || no)
    ? askWhatToChange(turn, form, open, 'the customer says no to the read-back')
    : null;
};

const saysWhatIsHeld: Answer = ({ turn, form, open, own }) => {
  const { same } = changesIn(turn, form, open, own);
  return same && own.some(({ folded }) => !turn.language.clauses.alters(folded))
    ? { ...advance(turn, { ...turn.state, tries: 0 }), why: 'the value is the one that is held' }
    : null;
};

const asksToWait: Answer = ({ turn, form, open, confirming }) =>
  confirming && turn.hearing.says('wait') && turn.hearing.onlySteers && form.onNo !== 'leave'
    ? askWhatToChange(turn, form, open, 'the customer wants to change something')
    : null;

/** The ways of answering, in the order in which they are looked for. */
const ANSWERS: readonly Answer[] = [
  letsBe,
  addsWords,
  givesCorrection,
  saysNoInFewWords,
  saysYes,
  namesSlots,
  wantsElse,
  changesNothing,
  saysNo,
  saysWhatIsHeld,
  asksToWait,
];

/** Yes, no or a correction, when the read-back stands open or the customer was asked what to change. */
export const confirmationReader: Reader = {
  name: 'confirmation',
  read(turn) {
    const standing = standingIn(turn);
    if (!standing) return null;
    for (const answer of ANSWERS) {
      const reply = answer(standing);
      if (reply) return reply;
    }
    return null;
  },
};
