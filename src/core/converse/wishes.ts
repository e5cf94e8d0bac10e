import { customersName, isOffered } from '../bot/customersName.js';
import { findIntent, formOfIntent, kindOf, type Form } from '../bot/document.js';
import { allWordings } from '../bot/localised.js';
import type { Recognition } from '../recognise/recognition.js';
import type { SlotReading } from '../recognise/slots.js';
import { sameValue, type Values } from '../recognise/value.js';
import { foldPhrase } from '../text/foldPhrase.js';
import { contentStems, hasWord, onlyValue, saysSomething } from './fits.js';
import type { Language } from '../language/language.js';
import type { OfferedIntent, OpenForm } from './state.js';
import type { ReadPart, Turn } from './turn.js';
import { gatherValues, type GivenValues } from './values.js';
import { entriesOf, heldBy, putHeld } from '../text/named.js';

/** Some stretches of a message. Offsets are UTF-16 code units. */
export type Stretches = readonly { start: number; end: number }[];

const NOTHING_GIVEN: GivenValues = { given: {}, wrong: [], between: null, firstOf: null };

/** The intent that the gate accepts for some words; `null` where it accepts none. */
export const acceptedIn = ({ decision, intent }: Recognition): string | null => (decision === 'accept' ? intent : null);

/** Of the intents in reach of an unsure reading, those that may be offered to a customer. */
export const offeredCandidates = (turn: Turn): string[] =>
  turn.matter.candidates.filter((name) => isOfferedTo(turn, name));

/** Whether an intent may be offered to a customer. */
export function isOfferedTo(turn: Turn, name: string): boolean {
  const intent = findIntent(turn.document, name);
  return intent !== undefined && isOffered(intent, turn.language);
}

/** Whether an intent is thanks, a greeting or the like: it is no wish. */
export function isSmallTalk(turn: Turn, name: string): boolean {
  const intent = findIntent(turn.document, name);
  return intent !== undefined && intent.form === undefined && !isOffered(intent, turn.language);
}

/** The slots of an intent that a message gives, from some stretches of it. @param within the whole where it is left out */
export function readingsFor(turn: Turn, intent: string, asked: string | null, within?: Stretches): SlotReading[] {
  const readings = turn.recogniser.readSlots(intent, turn.recognition, turn.vectors, asked);
  if (!within) return readings;
  const stretches = joinedStretches(turn.text, within, turn.language);
  return readings.filter(({ start, end }) => stretches.some((part) => part.start <= start && end <= part.end));
}

/** "Can we change the tea to the class": what a slot of the open form holds is named, with what is to be in its place. */
export function replacesHeld(turn: Turn, open: OpenForm, within: Stretches): boolean {
  if (!within.some(({ start, end }) => turn.language.clauses.alters(foldPhrase(turn.text.slice(start, end)))))
    return false;
  const readings = readingsFor(turn, open.intent, open.asked, within);
  return entriesOf(open.values).some(([slot, held]) => {
    const own = readings.filter((reading) => reading.slot === slot);
    // "From Friday to Saturday" is read as one stretch.
    const fromHeld = own.some(
      ({ value }) => typeof value === 'string' && typeof held === 'string' && value.startsWith(`${held}/`),
    );
    const isHeld = ({ value }: SlotReading) => [held].flat().some((one) => sameValue(one, value));
    const both = own.some(isHeld) && !own.every(isHeld);
    return fromHeld || both;
  });
}

const SIGNS = /[-−+£$€#(]/u;

/** Stretches with those that follow each other joined, so that a value may reach over a comma. */
function joinedStretches(text: string, within: Stretches, { wishes }: Language): { start: number; end: number }[] {
  const joined: { start: number; end: number }[] = [];
  for (const { start: first, end } of [...within].sort((a, b) => a.start - b.start)) {
    let start = first;
    // A sign before a figure belongs to it.
    while (start > 0 && SIGNS.test(text[start - 1]!)) start--;
    const last = joined.at(-1);
    if (last && wishes.joinsClauses(text.slice(last.end, start))) last.end = Math.max(last.end, end);
    else joined.push({ start, end });
  }
  return joined;
}

/** What a message gives to the form of an intent, from some stretches of it. */
export function valuesFor(
  turn: Turn,
  intent: string,
  { asked = null, within, held = {} }: { asked?: string | null; within?: Stretches; held?: Values } = {},
): GivenValues {
  const form = formOfIntent(turn.document, intent);
  const readings = readingsFor(turn, intent, asked, within);
  if (!form) {
    return { ...NOTHING_GIVEN, given: heldBy(readings.map(({ slot, value }) => [slot, value])) };
  }
  // Words outside the stretches belong to something else; they are blanked so that what is between values stays so.
  const text = within ? blankOutside(turn.text, within, turn.language) : turn.text;
  const gathered = gatherValues(
    turn.document,
    form,
    { text, whole: turn.text, readings, found: turn.recognition.entities },
    { today: turn.now, held, asked },
  );
  return { ...gathered, given: { ...byOneWord(turn, form, text), ...gathered.given } };
}

/** "The family one": the one value of a list that has this word. */
function byOneWord(turn: Turn, form: Form, text: string): Values {
  const lists = form.slots.filter((slot) => kindOf(turn.document, slot) === 'list');
  const given: Values = {};
  for (const [, word] of text.matchAll(turn.language.wishes.oneOf)) {
    const fits = lists.flatMap((slot) => {
      const value = onlyValue(turn.document, slot, word!);
      return value === undefined ? [] : [{ slot: slot.name, value }];
    });
    if (fits.length === 1) putHeld(given, fits[0]!.slot, fits[0]!.value);
  }
  return given;
}

function blankOutside(text: string, within: Stretches, language: Language): string {
  return joinedStretches(text, within, language).reduceRight(
    (blank, { start, end }) => blank.slice(0, start) + text.slice(start, end) + blank.slice(end),
    ' '.repeat(text.length),
  );
}

/** A text with some stretches of it blanked. @param stretches in text order */
export const without = (text: string, stretches: Stretches): string =>
  stretches.reduceRight((rest, { start, end }) => `${rest.slice(0, start)} ${rest.slice(end)}`, text);

/**
 * Whether a message says nothing beside the values that it gives to an intent.
 * @param asked the slot that was asked for
 */
export function onlyValues(turn: Turn, intent: string, asked: string | null = null): boolean {
  const readings = readingsFor(turn, intent, asked);
  if (readings.length === 0) return false;
  const { counted, oneOf } = turn.language.wishes;
  const lists =
    formOfIntent(turn.document, intent)?.slots.filter((slot) => kindOf(turn.document, slot) === 'list') ?? [];
  // "The blue one" beside a value is a word of one.
  const rest = without(turn.text, readings)
    .replace(counted, ' ')
    .replace(oneOf, (said, word: string) => (lists.some((slot) => hasWord(turn.document, slot, word)) ? ' ' : said));
  return !saysSomething(rest, turn.language);
}

/** Names of people and places: "Ann Teague". */
const NAMES = /(?<![\p{L}\p{N}])\p{Lu}\p{Ll}+(?:[ '’-]\p{Lu}\p{Ll}+)+/gu;

/** Whether a message is nothing but values, of whatever entity, and names beside them. */
export function saysOnlyValues({ text, recognition, language }: Turn): boolean {
  const { entities } = recognition;
  return entities.length > 0 && !saysSomething(without(text, entities).replace(NAMES, ' '), language);
}

/** A wish of a message: an intent with the stretches that speak of it. */
export interface Wish {
  intent: string;
  within: { start: number; end: number }[];
  /** Where it is likely, but not sure: it is offered, and not acted on unasked. */
  unsure?: true;
}

/** Whether a part can be a wish by itself: it asks for something. */
const asksSomething = (part: ReadPart): boolean => part.question || part.request;

/** Whether a part asks in words that can be nothing else: a verb at its beginning may be a value ("collect at 12"). */
const asksPlainly = ({ question, folded }: ReadPart, { clauses }: Language): boolean =>
  question || clauses.requests(folded);

/** "Collect at 12": the first word is a value of what the message asks for. */
const beginsWithValue = (turn: Turn, part: ReadPart, whole: string | null): boolean =>
  whole !== null &&
  !asksPlainly(part, turn.language) &&
  readingsFor(turn, whole, null).some(({ start, end }) => start <= part.start && part.start < end);

const LIKELY = 0.5;

/** A second wish is only offered, so it need not be sure. */
function likelyIn(turn: Turn, { ranking, decision }: Recognition): string | null {
  const [best, next] = ranking;
  const leads =
    best && best.confidence >= LIKELY && best.confidence - (next?.confidence ?? 0) >= turn.document.gate.lead;
  return decision === 'ask' && leads && !isSmallTalk(turn, best.intent) ? best.intent : null;
}

/**
 * The wishes of a message that has several, in their order; none of a message that has one. A part that asks for
 * nothing, or that the gate is unsure of, belongs to the wish it stands beside.
 */
export function wishesOf(turn: Turn): Wish[] {
  const wishes: Wish[] = [];
  const before: Wish['within'] = [];
  const whole = acceptedIn(turn.matter);
  const asksBeside = turn.parts.some(
    (part) => asksPlainly(part, turn.language) && acceptedIn(part.recognition) !== whole,
  );
  for (const part of turn.parts) {
    const last = wishes.at(-1);
    const own = acceptedIn(part.recognition);
    // What is told may be the wish of the whole message ("it never came, and I want to order again").
    const isTold = asksBeside && own !== null && own === whole;
    const sure = (asksSomething(part) && !beginsWithValue(turn, part, whole)) || isTold ? own : null;
    const intent = sure ?? (asksSomething(part) && last ? likelyIn(turn, part.recognition) : null);
    const stretch = { start: part.start, end: part.end };
    if (intent === null || isSmallTalk(turn, intent)) (last?.within ?? before).push(stretch);
    else if (last?.intent === intent) last.within.push(stretch);
    else wishes.push({ intent, within: [...before.splice(0), stretch], ...(sure === null ? { unsure: true } : {}) });
  }
  return new Set(wishes.map(({ intent }) => intent)).size > 1 ? wishes : [];
}

/** A wish with the values that its own words give. */
export const offeredFrom = (turn: Turn, { intent, within }: Wish): OfferedIntent => ({
  intent,
  values: { ...valuesFor(turn, intent, { within }).given, ...storyFor(turn, intent, within) },
});

const FEWEST_WORDS = 3;

/** What a customer told while asking for something, for the slot that would ask what happened: it is not asked again. */
export function storyFor(turn: Turn, intent: string, within?: Stretches): Values {
  const form = formOfIntent(turn.document, intent);
  const slot = form?.slots.find(
    (item) =>
      item.required &&
      kindOf(turn.document, item) === 'free' &&
      [item.name, item.entity, ...allWordings(item.prompts)].some((words) => turn.language.wishes.asksForStory(words)),
  );
  if (!slot) return {};
  const inside = ({ start, end }: { start: number; end: number }) =>
    !within || within.some((part) => part.start <= start && end <= part.end);
  const told = turn.hearing.content.filter(
    (clause) =>
      inside(clause) &&
      !clause.question &&
      !clause.request &&
      clause.folded.split(' ').length >= FEWEST_WORDS &&
      tellsMore(turn, intent, clause.text),
  );
  if (told.length === 0 || readingsFor(turn, intent, null).some((reading) => reading.slot === slot.name)) return {};
  const [first, last] = [told[0]!, told.at(-1)!];
  return { [slot.name]: turn.text.slice(first.start, last.end).replace(/[\s,.;]+$/u, '') };
}

const FEWEST_TOLD = 2;

/** Whether words tell more than the intent's own name does. */
function tellsMore(turn: Turn, intent: string, words: string): boolean {
  const own = new Set(
    contentStems(`${intent.replace(/[_-]/g, ' ')} ${customersName(turn.document, intent)}`, turn.language),
  );
  return contentStems(words, turn.language).filter((stem) => !own.has(stem)).length >= FEWEST_TOLD;
}
