import { customersName } from '../bot/customersName.js';
import { type EntityKind, findEntity, findIntent, type Form, kindOf, kindOfSlot, type Slot } from '../bot/document.js';
import { sameValue, type SlotValue, type Values } from '../recognise/value.js';
import { sharesWord } from './ends.js';
import { bareNumber, contentStems, numberFor, onlyValue, saysSomething } from './fits.js';
import type { Language } from '../language/language.js';
import { freeValue, mayBe, TAKES_ANY_WORDS } from './freeWords.js';
import { namedSlots } from './named.js';
import type { OpenForm } from './state.js';
import { slotApplies, type Turn } from './turn.js';
import type { GivenValues } from './values.js';
import { acceptedIn, isSmallTalk, valuesFor, without, type Stretches } from './wishes.js';
import { dropHeld, entriesOf, heldBy, heldOf, putHeld, withoutHeld } from '../text/named.js';

/** A form while its slots are filled. */
export interface Filling {
  turn: Turn;
  form: Form;
  open: OpenForm;
  /** The slot that was asked for. */
  asked: Slot | undefined;
}

/** Whether an answer changes values that were already given, and so is a correction rather than free words. */
export const corrects = (held: Values, given: Values): boolean =>
  entriesOf(given).some(([slot, value]) => heldOf(held, slot) !== undefined && !sameValue(heldOf(held, slot), value));

/** Values of kinds that are known wherever they stand: codes, mail addresses, telephone numbers. */
const IDENTIFYING = ['pattern', 'email', 'phone', 'url'];

export const namesSomething = ({ matter, document }: Turn): boolean =>
  matter.slots.some(({ entity }) => IDENTIFYING.includes(findEntity(document, entity)?.kind ?? ''));

/**
 * Whether an answer to the question for a name is one, whatever it resembles ("Sue" is no complaint): it has a word that
 * the intent it resembles was not taught with.
 * @param words that may be a name
 */
function isUntaughtName({ document, language }: Turn, intent: string, words: string): boolean {
  const { utterances = [], description = '' } = findIntent(document, intent) ?? {};
  const taught = new Set(
    [
      intent.replace(/[_-]/gu, ' '),
      customersName(document, intent),
      description,
      ...utterances.map(({ text }) => text),
    ].flatMap((text) => contentStems(text, language)),
  );
  const stems = contentStems(words, language);
  const isCapital = words.split(/\s+/u).every((word) => /^\p{Lu}/u.test(word));
  return isCapital ? stems.some((stem) => !taught.has(stem)) : stems.every((stem) => !taught.has(stem));
}

/**
 * Whether a message is a whole other request, and no free words for the slot that was asked for.
 * @param words the answer that it would be
 */
function asksForElse({ turn, open, asked }: Filling, words: string): boolean {
  const intent = acceptedIn(turn.matter);
  if (intent === null || intent === open.intent || isSmallTalk(turn, intent)) return false;
  const { hearing } = turn;
  if (hearing.content.some(({ question }) => question)) return true;
  const kind = kindOf(turn.document, asked);
  if (kind === 'person' && !hearing.content.some(({ request }) => request)) return !isUntaughtName(turn, intent, words);
  if (kind !== 'free') return true;
  return namesSomething(turn) || turn.language.clauses.wouldLike(hearing.folded);
}

/** The words of an answer, without what only steers and without questions. */
export function answerWords(turn: Turn, own: Stretches): string {
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

/** Whether words are a code, an address of the net or a telephone number, and nothing else. */
const isCode = (turn: Turn, words: string): boolean =>
  namesSomething(turn) &&
  !saysSomething(without(turn.text, turn.recognition.entities), turn.language) &&
  !/\s/u.test(words);

/** What an answer that no finder read gives to the slot that was asked for. */
function unreadAnswer(filling: Filling, own: Stretches, given: Values): SlotValue | undefined {
  const { turn, asked, open } = filling;
  const words = answerWords(turn, own);
  if (!asked || words.trim() === '') return undefined;
  const kind = kindOf(turn.document, asked);
  if (kind === 'list') return onlyValue(turn.document, asked, words);
  if (!TAKES_ANY_WORDS.includes(kind)) return undefined;
  const altered =
    corrects(open.values, given) && (turn.language.clauses.alters(turn.hearing.folded) || kind !== 'free');
  const value = freeValue(words, turn.language);
  if (altered || asksForElse(filling, value) || (kind !== 'free' && isCode(turn, value))) return undefined;
  if (mayBe(kind, value, turn.language)) return value;
  return kind === 'person' ? nameWithin(words, turn.language) : undefined;
}

const FULL_NAMES = /\p{Lu}[\p{L}'’-]+(?:\s+\p{Lu}[\p{L}'’-]+){1,2}/gu;

/** "Hmm, good question, it's Priya Shah I suppose": the one full name within an answer to the question for one. */
function nameWithin(words: string, language: Language): string | undefined {
  const names = (words.match(FULL_NAMES) ?? []).filter(
    (name) =>
      mayBe('person', name, language) &&
      name.split(/\s+/u).some((word) => !language.dictionary.has(word.toLowerCase())),
  );
  return names.length === 1 ? names[0] : undefined;
}

/** A figure that is all an answer says fills the slot that was asked for, and no other. */
function figureAnswer(filling: Filling, own: Stretches): Values | null {
  const { turn, asked } = filling;
  if (!asked) return null;
  const number = bareNumber(answerWords(turn, own), turn.language);
  if (!number || Object.keys(figureCorrection(filling, own)).length > 0) return null;
  const value = numberFor(turn.document, asked, number, { today: turn.now });
  if (value !== undefined) return { [asked.name]: value };
  return kindOf(turn.document, asked) === 'number' ? null : {};
}

/** "No, 4" in answer to another question: a figure that corrects the one value held that it can be. */
function figureCorrection({ turn, form, open }: Filling, own: Stretches): Values {
  const number =
    turn.language.clauses.alters(turn.hearing.folded) || turn.hearing.says('no', 'wait')
      ? bareNumber(answerWords(turn, own), turn.language)
      : null;
  if (!number) return {};
  const fits = form.slots.flatMap((slot): [string, SlotValue][] => {
    const kind = kindOf(turn.document, slot);
    const held = heldOf(open.values, slot.name);
    if (
      held === undefined ||
      (kind !== 'number' && kind !== 'money' && kind !== 'time' && !(kind === 'date' && number.named))
    )
      return [];
    const value = numberFor(turn.document, slot, number, { today: turn.now, held });
    return value === undefined ? [] : [[slot.name, value]];
  });
  const amounts = fits.filter(([slot]) => kindOfSlot(turn.document, form, slot) === 'number');
  const likely = amounts.length > 0 ? amounts : fits;
  return likely.length === 1 ? heldBy(likely) : {};
}

/** Kinds that tell how much or when: under another name they mean another thing. */
const MEASURES: readonly EntityKind[] = [
  'number',
  'ordinal',
  'quantity',
  'percent',
  'money',
  'date',
  'time',
  'datetime',
  'duration',
];

/** What was held before for a slot: under its own name, else for what is of the same entity and means the same. */
function rememberedFor({ document, state }: Turn, slot: Slot): SlotValue | undefined {
  const alike = state.remembered.filter(({ entity }) => entity === slot.entity);
  const own = alike.find((one) => one.slot === slot.name);
  const kind = findEntity(document, slot.entity)?.kind;
  const other = kind === undefined || MEASURES.includes(kind) ? undefined : alike[0];
  return (own ?? other)?.value;
}

/** What the customer means by "the same as before" for the slot that was asked for. */
function asBefore({ turn, form, open, asked }: Filling): Values {
  if (!asked || !turn.hearing.says('asBefore')) return {};
  // "The same address" is of the address, whatever was asked for.
  const always = form.slots.map(({ when: _, ...slot }): Slot => slot);
  const spoken = namedSlots(turn, { ...form, slots: always }, open);
  const meant = spoken.length > 0 && !spoken.some(({ name }) => name === asked.name) ? spoken : [asked];
  return heldBy(
    meant.flatMap((slot): [string, SlotValue][] => {
      const value = rememberedFor(turn, slot);
      return value === undefined ? [] : [[slot.name, value]];
    }),
  );
}

/** "I don't mind" takes the slot's default, where it has one. */
function byDefault({ turn, asked }: Filling): Values {
  const { hearing } = turn;
  if (asked?.default === undefined || !hearing.onlySteers || !hearing.says('indifferent')) return {};
  return { [asked.name]: asked.default };
}

/** A value goes to the slot that was asked for rather than to another of its kind that holds one already. */
function toAsked({ turn, form, open, asked }: Filling, given: Values): Values {
  if (!asked || heldOf(given, asked.name) !== undefined || turn.language.clauses.alters(turn.hearing.folded))
    return given;
  const rival = form.slots.find(
    ({ name, entity }) =>
      entity === asked.entity &&
      heldOf(given, name) !== undefined &&
      heldOf(open.values, name) !== undefined &&
      !sharesWord(name, turn.text, turn.language),
  );
  if (!rival) return given;
  return { ...withoutHeld(given, rival.name), [asked.name]: heldOf(given, rival.name)! };
}

/** What a message gives to an open form, the slot that was asked for first. @param own what of it is an answer */
export function answered(filling: Filling, own: Stretches): GivenValues {
  const { turn, open, asked, form } = filling;
  const gathered = valuesFor(turn, open.intent, { asked: open.asked, within: own, held: open.values });
  const figure = figureAnswer(filling, own);
  const isRead =
    asked !== undefined &&
    heldOf(gathered.given, asked.name) !== undefined &&
    kindOf(turn.document, asked) !== 'number';
  if (figure !== null && !isRead && gathered.wrong.length === 0) {
    // What is more than a figure is kept: "at eight" is a time, whatever was asked for.
    const said = entriesOf(gathered.given).filter(
      ([slot]) => heldOf(open.values, slot) !== undefined && kindOfSlot(turn.document, form, slot) === 'time',
    );
    const given = Object.keys(figure).length > 0 ? figure : Object.fromEntries(said);
    return { ...gathered, given, between: null, firstOf: null };
  }
  const kind = kindOf(turn.document, asked);
  const isNew = Object.keys(gathered.given).every(
    (slot) => heldOf(open.values, slot) === undefined && slot !== open.asked,
  );
  const corrected = isNew ? figureCorrection(filling, own) : {};
  const found = Object.keys(corrected).length > 0 ? {} : toAsked(filling, gathered.given);
  const given = { ...asBefore(filling), ...byDefault(filling), ...corrected, ...found };
  const isNumber = (slot: string) => kindOfSlot(turn.document, form, slot) === 'number';
  Object.assign(given, nameBeside(filling, own, given));
  const free = asked && heldOf(given, asked.name) === undefined ? unreadAnswer(filling, own, given) : undefined;
  if (asked && free !== undefined) {
    putHeld(given, asked.name, free);
    // The number of a house, or a figure within free words, is no amount.
    if (kind === 'address' || kind === 'free') {
      for (const slot of Object.keys(given)) if (slot !== asked.name && isNumber(slot)) dropHeld(given, slot);
    }
  }
  if (
    asked &&
    kind === 'free' &&
    typeof heldOf(given, asked.name) === 'string' &&
    own.length > 0 &&
    !corrects(open.values, given)
  ) {
    putHeld(given, asked.name, wholeAnswer(filling, own, heldOf(given, asked.name) as string));
  }
  return { ...gathered, given };
}

/** A name that stands beside other values, and nothing else: "Ann Teague, 07700 900777". */
function nameBeside({ turn, form, open }: Filling, own: Stretches, given: Values): Values {
  const slots = form.slots.filter(
    (slot) =>
      kindOf(turn.document, slot) === 'person' &&
      slotApplies(slot, open.values) &&
      heldOf(open.values, slot.name) === undefined &&
      heldOf(given, slot.name) === undefined,
  );
  if (slots.length !== 1 || Object.keys(given).length === 0) return {};
  const values = turn.recognition.entities;
  const rest = own
    .map(({ start, end }) => {
      const inside = values
        .filter((value) => value.start >= start && value.end <= end)
        .map((value) => ({ start: value.start - start, end: value.end - start }));
      return without(turn.text.slice(start, end), inside);
    })
    .join(' ')
    .replace(turn.language.wishes.edge, ' ')
    .replace(/[,;.:]/gu, ' ')
    .trim();
  const isName = /^\p{Lu}[\p{L}'’-]+(?:\s+\p{Lu}[\p{L}'’-]+){0,2}$/u.test(rest) && mayBe('person', rest, turn.language);
  return isName ? { [slots[0]!.name]: rest.replace(/\s+/gu, ' ') } : {};
}

/** Free words that were asked for are all of the answer, though the tagger took a part of it. */
function wholeAnswer({ turn, form, asked }: Filling, own: Stretches, found: string): string {
  const words = answerWords(turn, own);
  const value = freeValue(words, turn.language);
  const others = turn.recognition.entities.filter(({ entity }) =>
    form.slots.some((slot) => slot !== asked && slot.entity === entity),
  );
  const extra = value.replace(found, '').trim().split(/\s+/).length;
  return others.length === 0 && value.includes(found) && extra <= MOST_ADDED && mayBe('free', value, turn.language)
    ? value
    : found;
}

const MOST_ADDED = 6;
