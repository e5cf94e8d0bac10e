import type { Form, Slot } from '../../bot/document.js';
import { sameValue, showValue, type SlotValue, type Value } from '../../recognise/value.js';
import { actOnIntent, actOnWishes, type Wanted } from '../act.js';
import { bareNumber, dayNamed, numberFor } from '../fits.js';
import { alters, foldPhrase } from '../phrases.js';
import type { OpenForm, Say } from '../state.js';
import { remarksOn, tellAbout } from '../tell.js';
import {
  advance,
  applying,
  askFor,
  complete,
  leave,
  listWords,
  onlyReplies,
  openForm,
  sayClarification,
  sayDecline,
  sayOwn,
  slotApplies,
  slotWords,
  takeAndAdvance,
  valueWords,
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
  readingsFor,
  valuesFor,
  wishesOf,
  type Stretches,
} from '../wishes.js';
import { endsOfForm, kindOf, type GivenValues } from '../values.js';

/** The slots a customer names without a value: "the quantity", "the paper is wrong", "the day and the time". */
function namedSlots(turn: Turn, form: Form, { values }: OpenForm): Slot[] {
  const folded = ` ${turn.hearing.folded.replace(/\?$/, '')} `;
  const says = (name: string) => {
    const words = foldPhrase(slotWords(name));
    return folded.includes(` ${words} `) || folded.includes(` ${words}s `) || folded.includes(` ${words} is `);
  };
  const byName = form.slots.filter((slot) => slotApplies(slot, values) && says(slot.name));
  if (byName.length > 0) return byName;
  const byEntity = form.slots.filter(
    (slot) => slotApplies(slot, values) && says(slot.entity) && (slot.required || values[slot.name] !== undefined),
  );
  if (byEntity.length > 0) return byEntity;
  // "the job number" by a word of the slot's name that no other slot has.
  return form.slots.filter((slot) => {
    const own = foldPhrase(slotWords(slot.name))
      .split(' ')
      .filter((word) => word.length > 3);
    const shared = (word: string) =>
      form.slots.some((other) => other !== slot && foldPhrase(slotWords(other.name)).split(' ').includes(word));
    return slotApplies(slot, values) && own.some((word) => !shared(word) && folded.includes(` ${word} `));
  });
}

/** The other wishes of a message, beside what it says to the read-back. */
function otherWishes(turn: Turn, current: string): Wanted[] {
  const wishes = wishesOf(turn).filter(({ intent }) => intent !== current);
  if (wishes.length > 0) return wishes.map((wish) => ({ intent: wish.intent, within: wish.within }));
  const accepted = turn.hearing.onlySteers ? null : acceptedIn(turn.matter);
  if (accepted !== null && accepted !== current && !isSmallTalk(turn, accepted)) {
    return [{ intent: accepted, within: turn.hearing.content }];
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
): { read: GivenValues; changed: Record<string, SlotValue>; same: boolean } {
  const read = valuesFor(turn, open.intent, { asked: open.asked, within, held: open.values });
  const given = applying(form, open.values, read.given);
  const changed = Object.entries(given).filter(([slot, value]) => !sameValue(open.values[slot], value));
  return { read, changed: Object.fromEntries(changed), same: changed.length < Object.keys(given).length };
}

/** "Make it the 15": the slots that a bare figure could be for, with what it would be there. */
function fitsOf(turn: Turn, form: Form, open: OpenForm): { slot: string; value: SlotValue }[] | null {
  const text = turn.hearing.content.map((clause) => clause.text).join(' ');
  const number = bareNumber(text);
  if (!number?.named) return null;
  return form.slots.flatMap((slot) => {
    if (!slotApplies(slot, open.values)) return [];
    const value = slotTakesNamed(turn, slot, number);
    return value === undefined || sameValue(open.values[slot.name], value) ? [] : [{ slot: slot.name, value }];
  });
}

/** An amount has no article: "the 15" is one of several, or a day. */
function slotTakesNamed(
  turn: Turn,
  slot: Slot,
  number: NonNullable<ReturnType<typeof bareNumber>>,
): SlotValue | undefined {
  const value = numberFor(turn.document, slot, number, turn.now, turn.state.open?.values[slot.name]);
  return value === number.value
    ? undefined
    : typeof value === 'string' && /^\d\d:\d\d$/.test(value)
      ? undefined
      : value;
}

function askWhichSlot(turn: Turn, open: OpenForm, said: string, options: { slot: string; value: SlotValue }[]): Reply {
  const choices = listWords(
    turn,
    options.map(({ slot, value }) => `the ${slotWords(slot)} (${valueWords(turn, value)})`),
    'disjunction',
  );
  return {
    state: { ...turn.state, open: { ...open, fits: { said, options } } },
    says: sayOwn(turn, 'whichSlot', { said, choices }),
    acts: [],
    why: `${said} could be for ${options.map(({ slot }) => slot).join(' or ')}`,
  };
}

/** Words before a day that tell which end of a stretch it is. */
const BEGINS =
  /(?:from|start\w*|begin\w*|leav\w*|pick\w*|first|arriv\w*|collect\w*)(?:\s+(?:on|it|them|up|is|should be))*(?:\s+the)?\s*$/iu;
const ENDS =
  /(?:until|till|to|back|return\w*|end\w*|finish\w*|last|by)(?:\s+(?:on|it|them|is|should be))*(?:\s+the)?\s*$/iu;
const DAY_ALONE = /^(?:the\s+)?(\d{1,2})(?:st|nd|rd|th)?$/iu;

/** What one new day changes where a form holds both ends of a stretch: the end that the words tell, else to be asked. */
function newEnd(
  turn: Turn,
  form: Form,
  open: OpenForm,
  changed: Record<string, SlotValue>,
  within: Stretches,
): { said: string; options: { slot: string; value: SlotValue }[] } | null {
  const ends = endsOfForm(turn.document, form);
  const given = ends?.filter(({ name }) => changed[name] !== undefined) ?? [];
  if (!ends || given.length !== 1 || ends.some(({ name }) => open.values[name] === undefined)) return null;
  const reading = readingsFor(turn, open.intent, open.asked, within).find(({ slot }) => slot === given[0]!.name);
  const named = namedSlots(turn, form, open).map(({ name }) => name);
  if (!reading || typeof reading.value !== 'string' || turn.now === null) return null;
  const before = turn.text.slice(0, reading.start);
  const [first, last] = ends.map(({ name }) => name) as [string, string];
  const told = BEGINS.test(before)
    ? [first]
    : ENDS.test(before)
      ? [last]
      : ends.map(({ name }) => name).filter((name) => named.includes(name));
  const alone = DAY_ALONE.exec(reading.text);
  const options = (told.length > 0 ? told : [first, last]).map((slot) => ({
    slot,
    value: (alone && dayNamed(Number(alone[1]), turn.now!, open.values[slot])) ?? reading.value,
  }));
  return { said: reading.text, options };
}

/** "No, it's 16": the number of the house in an address, where a figure can be nothing else. */
function houseNumber(turn: Turn, form: Form, open: OpenForm, own: Stretches): Record<string, SlotValue> {
  const number = own.length > 0 ? bareNumber(turn.hearing.content.map(({ text }) => text).join(' ')) : null;
  const addresses = form.slots.filter((slot) => kindOf(turn.document, slot) === 'address');
  const held = addresses.length === 1 ? open.values[addresses[0]!.name] : undefined;
  if (!number?.digits || typeof held !== 'string' || !/^\d+[a-z]?(?= )/i.test(held)) return {};
  return { [addresses[0]!.name]: held.replace(/^\d+[a-z]?/i, number.digits) };
}

/** "It's 16" may be said of a house as well as of an amount; "make it 16" may not. */
const SAYS_WHAT_IS = /(?:^| )(?:its|it is|thats|that is|was|should be|number)(?: |$)/;

/** Where a figure is for an amount or for the number of a house: what it would be for each. */
function amountOrHouse(
  turn: Turn,
  form: Form,
  open: OpenForm,
  own: Stretches,
  changed: Record<string, SlotValue>,
): { slot: string; value: SlotValue }[] {
  const said = own.map((clause) => turn.text.slice(clause.start, clause.end)).join(' ');
  const [[amount, value] = [], ...others] = Object.entries(changed);
  if (amount === undefined || others.length > 0 || !SAYS_WHAT_IS.test(foldPhrase(said))) return [];
  const isAmount =
    kindOf(
      turn.document,
      form.slots.find(({ name }) => name === amount),
    ) === 'number';
  const houses = isAmount ? Object.entries(houseNumber(turn, form, open, own)) : [];
  return houses.length === 0 ? [] : [[amount, value!] as const, ...houses].map(([slot, is]) => ({ slot, value: is }));
}

function readCorrection(turn: Turn, form: Form, open: OpenForm, own: Stretches): Reply | null {
  const { hearing, state } = turn;
  const fits = own.length > 0 ? fitsOf(turn, form, open) : null;
  if (fits && fits.length > 0) {
    const said = bareNumber(hearing.content.map(({ text }) => text).join(' '))!.words;
    if (fits.length > 1) return askWhichSlot(turn, open, said, fits);
    const { slot, value } = fits[0]!;
    return { ...takeAndAdvance(turn, { ...state, tries: 0 }, { [slot]: value }), why: `the customer corrects ${slot}` };
  }
  const { read, changed: byValues } = changesIn(turn, form, open, own);
  const changed = Object.keys(byValues).length > 0 ? byValues : houseNumber(turn, form, open, own);
  const either = amountOrHouse(turn, form, open, own, changed);
  if (either.length > 1) return askWhichSlot(turn, open, showValue(either[0]!.value as Value), either);
  const end = newEnd(turn, form, open, changed, own);
  if (end !== null && end.options.length > 1) return askWhichSlot(turn, open, end.said, end.options);
  if (end !== null) {
    const [{ slot, value }] = end.options as [{ slot: string; value: SlotValue }];
    return { ...takeAndAdvance(turn, { ...state, tries: 0 }, { [slot]: value }), why: `the customer corrects ${slot}` };
  }
  const names = Object.keys(changed);
  const told = remarksOn(turn, read);
  if (names.length === 0 && read.between === null && told.length === 0) return null;
  // Other slots that are named besides are asked for ("change the day, and make it four").
  const filled = takeAndAdvance(turn, { ...state, tries: 0 }, changed);
  const telling =
    read.between !== null || told.length > 0 ? tellAbout(turn, filled.state.open ? filled.state : state, read) : null;
  const next = telling && filled.state.open ? { ...telling, acts: [...filled.acts, ...telling.acts] } : filled;
  return {
    ...next,
    why: names.length > 0 ? `the customer corrects ${names.join(', ')}` : 'a value cannot be taken as it was given',
  };
}

function askForNamed(turn: Turn, form: Form, open: OpenForm, named: readonly Slot[]): Reply {
  const names = named.map(({ name }) => name);
  const state = { ...turn.state, tries: 0, open: { ...open, toAsk: names } };
  return { ...askFor(turn, state, named[0]!), why: `the customer wants to change ${names.join(' and ')}` };
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

/** A question beside a yes that the gate is unsure of is asked about once the form is done. */
function askAboutQuestion(turn: Turn, done: Doing): Doing {
  const { state } = done;
  const asks = turn.hearing.content.some(({ question }) => question) && turn.matter.decision === 'ask';
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
  if (!first) return { ...(wishes.length > 0 ? next : askAboutQuestion(turn, next)), why };
  const later = withWaiting(
    { ...next.state, offered: null },
    rest.map(({ intent, within }) => offeredFrom(turn, { intent, within: [...(within ?? [])] })),
  );
  const acted = actOnIntent({ ...turn, state: later }, { ...first, before: next.says });
  return { ...acted, acts: [...next.acts, ...acted.acts], why };
}

/** Yes, no or a correction, when the read-back stands open or the customer was asked what to change. */
export const confirmationReader: Reader = {
  name: 'confirmation',
  read(turn) {
    const current = openForm(turn);
    if (!current || current.open.stage === 'filling') return null;
    const { open, form } = current;
    const { hearing, state } = turn;
    const questions = hearing.content.filter(({ question }) => question);
    const wishes = otherWishes(turn, open.intent);
    const own = hearing.content.filter(
      (clause) => !clause.question && !wishes.some(({ within }) => covers(within, clause)),
    );
    const confirming = open.stage === 'confirming';
    const no = hearing.says('no');
    const yes = hearing.says('yes') || (hearing.says('ok') && hearing.onlySteers);

    if (confirming && hearing.onlySteers && hearing.says('keep', 'nothing') && !(yes && !no))
      return leaveForm(turn, form);
    const corrected = wishes.length > 0 && own.length === 0 ? null : readCorrection(turn, form, open, own);
    if (corrected) {
      const answers = wishes.filter(({ intent }) => onlyReplies(turn.document, intent));
      const said = answers.flatMap(
        (wish): Say[] => actOnIntent({ ...turn, state: { ...state, open: null, parked: [], waiting: [] } }, wish).says,
      );
      return { ...corrected, says: [...said, ...corrected.says] };
    }
    const named = wishes.length > 0 ? [] : namedSlots(turn, form, open);
    const denies =
      no ||
      hearing.says('wait') ||
      own.some(({ folded }) => /(?:^| )(?:wrong|not|change|different|isnt|incorrect)(?: |$)/.test(folded));
    if (confirming && yes && !no && !(named.length > 0 && denies)) {
      if (own.every(({ folded }) => !/^(?:but|except)(?: |$)/.test(folded))) return sayYes(turn, wishes);
    }
    if (named.length > 0 && questions.length === 0) return askForNamed(turn, form, open, named);
    if (no && wishes.length > 0 && own.length === 0) {
      // A whole request in place of the answer is that request; "instead" lets the form go.
      const instead = / (?:instead|rather) /.test(` ${hearing.folded} `);
      const base = instead ? { ...state, open: null, last: open } : state;
      return actOnWishes({ ...turn, state: base }, wishes, 'the customer wants something else');
    }
    if (!confirming && hearing.onlySteers && hearing.says('nothing', 'ok', 'yes') && !no) {
      return hearing.says('ok', 'yes')
        ? { ...advance(turn, { ...state, tries: 0 }), why: 'there is nothing to change' }
        : leaveForm(turn, form);
    }
    if ((no || hearing.says('keep')) && questions.length === 0) {
      const again = !confirming || form.onNo === 'leave';
      if (again && own.length === 0) return leaveForm(turn, form);
      if (confirming && (own.length === 0 || no)) {
        return askWhatToChange(turn, form, open, 'the customer says no to the read-back');
      }
    }
    const { same } = changesIn(turn, form, open, own);
    if (same && own.some(({ folded }) => !alters(folded))) {
      return { ...advance(turn, { ...state, tries: 0 }), why: 'the value is the one that is held' };
    }
    if (confirming && hearing.says('wait') && hearing.onlySteers) {
      return askWhatToChange(turn, form, open, 'the customer wants to change something');
    }
    return null;
  },
};
