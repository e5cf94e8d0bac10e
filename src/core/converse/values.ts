import { kindOf, kindOfSlot, type BotDocument, type EntityKind, type Form, type Slot } from '../bot/document.js';
import { allWordings } from '../bot/localised.js';
import { languageOf } from '../language/index.js';
import type { Language } from '../language/language.js';
import { namesNoDay } from '../recognise/finders/dates/noDay.js';
import type { Candidate } from '../recognise/finders/finder.js';
import { mainLanguage } from '../recognise/reading.js';
import type { SlotReading } from '../recognise/slots.js';
import { sameValue, showValue, type SlotValue, type Value, type Values } from '../recognise/value.js';
import type { TextName } from '../say/engineTexts.js';
import { tokenise } from '../text/tokens.js';
import { CLOCK, timeFor, timeNear } from './fits.js';
import { goneBy, mayBePast } from './past.js';
import { lineSlots, orderWith, sayThings } from './orderLines.js';
import { nearHeld, settleEnds } from './stretch.js';
import { heldBy, heldOf, putHeld } from '../text/named.js';

/** Why a value cannot be taken: the sentence of the engine that tells it. */
export interface WrongValue {
  slot: string;
  text: Extract<TextName, 'noSuchDay' | 'dayGone' | 'endsBefore' | 'tooFew' | 'notWhole'>;
}

/** What a message gives to a form, with what has to be asked about it. */
export interface GivenValues {
  given: Values;
  wrong: WrongValue[];
  /** A slot that holds one value and was given several. */
  between: { slot: string; values: Value[] } | null;
  /** What was taken first of several things that do not pair off. */
  firstOf: string | null;
  /** Whether the values are those of a whole order, with what the message adds to it or puts right. */
  ordered?: boolean;
}

/** Kinds of which a slot may hold several values, unless it says otherwise. */
const MAY_HOLD_SEVERAL: readonly (EntityKind | undefined)[] = ['list', 'free', 'country'];

const holdsSeveral = (document: BotDocument, slot: Slot): boolean =>
  slot.several ?? MAY_HOLD_SEVERAL.includes(kindOf(document, slot));

const distinct = (values: readonly Value[]): Value[] =>
  values.filter((value, at) => values.findIndex((other) => showValue(other) === showValue(value)) === at);

/** The things of an order: the list slot with the most values; `null` where there is one thing at most. */
function thingsOf(document: BotDocument, form: Form, readings: readonly SlotReading[]): SlotReading[] | null {
  let most: SlotReading[] = [];
  for (const slot of form.slots) {
    if (kindOf(document, slot) !== 'list') continue;
    const own = readings.filter((reading) => reading.slot === slot.name);
    if (distinct(own.map(({ value }) => value)).length > Math.max(1, most.length)) most = own;
  }
  return most.length > 1 ? most : null;
}

/** The numbers of several things; of an order, "a sofa and two mattresses" counts the sofa as well. */
function numbersOf(
  document: BotDocument,
  form: Form,
  { text, readings }: Read,
  things: readonly SlotReading[],
): SlotReading[] {
  const numbers = readings.filter(({ slot }) => kindOfSlot(document, form, slot) === 'number');
  const slots = lineSlots(document, form);
  if (!slots?.lists.includes(things[0]!.slot)) return numbers;
  const { one } = languageOf(document).values;
  const { entity } = form.slots.find(({ name }) => name === slots.number)!;
  const ones = things.flatMap((thing, at): SlotReading[] => {
    const from = things[at - 1]?.end ?? 0;
    if (numbers.some(({ start }) => start >= from && start < thing.end)) return [];
    const found = one.exec(text.slice(from, thing.start));
    if (!found) return [];
    const start = from + found.index + found[0].indexOf(found[1]!);
    const end = start + found[1]!.length;
    const why = 'it is said before a thing';
    return [{ slot: slots.number, entity, start, end, text: text.slice(start, end), value: 1, why }];
  });
  return [...numbers, ...ones].sort((a, b) => a.start - b.start);
}

/**
 * Of an order of several things, what can be kept: all of it where every thing has its own number, so that the values
 * pair off; else the first thing alone. A form that counts nothing keeps all.
 * @param readings in text order
 */
function oneThing(
  document: BotDocument,
  form: Form,
  text: string,
  readings: readonly SlotReading[],
): { readings: SlotReading[]; paired: boolean; firstOf: string | null } {
  const all = { readings: [...readings], paired: false, firstOf: null };
  const counted = form.slots.filter((slot) => kindOf(document, slot) === 'number');
  const things = thingsOf(document, form, readings);
  const language = languageOf(document);
  if (!things || counted.length === 0) return all;
  if (language.values.areAlternatives(text.slice(things[0]!.end, things.at(-1)!.start))) return all;
  const numbers = numbersOf(document, form, { text, readings }, things);
  const pairs =
    numbers.length === things.length &&
    numbers.every((number, at) => {
      const [before, own] = [things[at - 1], things[at]!];
      return number.start >= (before?.end ?? 0) && number.start < own.end;
    });
  if (pairs) {
    const others = readings.filter((reading) => !counted.some(({ name }) => name === reading.slot));
    return { ...all, readings: [...others, ...numbers].sort((a, b) => a.start - b.start), paired: true };
  }
  const [first, second] = things as [SlotReading, SlotReading];
  // What stands before the second thing and after the last word that joins the two belongs to the second.
  const joint = language.values.joint.exec(text.slice(first.end, second.start))?.[0].length ?? 0;
  const border = first.end + joint;
  const end = things.at(-1)!.end;
  const shared = (reading: SlotReading) =>
    kindOfSlot(document, form, reading.slot) !== 'number' &&
    reading.slot !== first.slot &&
    readings.filter(({ slot }) => slot === reading.slot).length === 1 &&
    reading.start >= end;
  const kept = readings.filter((reading) => reading.start < border || shared(reading));
  return { readings: kept, paired: false, firstOf: text.slice(kept[0]?.start ?? first.start, first.end).trim() };
}

function wrongValue(document: BotDocument, slot: Slot, value: Value, today: string | null): WrongValue['text'] | null {
  const kind = kindOf(document, slot);
  const language = languageOf(document);
  if (kind === 'number' && typeof value === 'number') {
    if (value < 0 || (value === 0 && slot.required)) return 'tooFew';
    const measured = language.values.isMeasure(`${slot.name} ${slot.entity}`);
    return Number.isInteger(value) || measured ? null : 'notWhole';
  }
  if (
    (kind === 'date' || kind === 'datetime') &&
    typeof value === 'string' &&
    today !== null &&
    !mayBePast(slot, language)
  ) {
    const last = value.split('/').at(-1)!;
    const gone = last.length > 10 && today.length > 10 ? last < today : last.slice(0, 10) < today.slice(0, 10);
    return gone ? 'dayGone' : null;
  }
  return null;
}

/** Several values that a message gives to one slot, as the slot can hold them. */
function joined(
  document: BotDocument,
  slot: Slot,
  own: readonly SlotReading[],
  { text, paired }: { text: string; paired: boolean },
): { value: SlotValue } | { between: Value[] } {
  const values = own.map(({ value }) => value);
  const different = distinct(values);
  const kind = kindOf(document, slot);
  const words = languageOf(document).values;
  if (paired && (kind === 'number' || different.length > 1)) return { value: kind === 'number' ? values : different };
  const between = text.slice(own[0]!.end, own.at(-1)!.start);
  if (
    own.length > 1 &&
    kind === 'number' &&
    values.every((value) => typeof value === 'number') &&
    words.areSum(between) &&
    !words.areAlternatives(between)
  ) {
    return { value: values.reduce<number>((sum, value) => sum + value, 0) };
  }
  // "It has grown from four to seven": what it is now.
  if (kind === 'number' && words.hasGrown(text.slice(0, own[0]!.start), between)) {
    return { value: values.at(-1)! };
  }
  if (different.length === 1) return { value: different[0]! };
  if (holdsSeveral(document, slot) && !words.areAlternatives(between)) return { value: different };
  return { between: different };
}

/** "It took two weeks" counts no goods, unless the slot asks for weeks. */
function isSpan(document: BotDocument, form: Form, text: string, { slot: name, end }: SlotReading): boolean {
  const slot = form.slots.find((item) => item.name === name);
  const unit =
    kindOf(document, slot) === 'number' ? languageOf(document).values.span.exec(text.slice(end))?.[1] : undefined;
  if (!slot || unit === undefined) return false;
  return !asksFor(slot, unit);
}

/** "Pitch 9" counts nothing, unless the slot asks for the pitch. */
function isNumberOf(
  document: BotDocument,
  form: Form,
  text: string,
  { slot: name, start, value }: SlotReading,
): boolean {
  const slot = form.slots.find((item) => item.name === name);
  if (kindOf(document, slot) !== 'number' || !Number.isInteger(value) || !/^\d/.test(text.slice(start))) return false;
  const thing = languageOf(document).values.namedByFigure.exec(text.slice(Math.max(0, start - 30), start))?.[1];
  return thing !== undefined && !asksFor(slot!, thing);
}

/** "One more order" counts no goods, unless the slot asks for orders. */
function isFurtherWish(document: BotDocument, form: Form, text: string, { slot: name, end }: SlotReading): boolean {
  const slot = form.slots.find((item) => item.name === name);
  if (kindOf(document, slot) !== 'number') return false;
  const wish = languageOf(document).values.furtherWish.exec(text.slice(end))?.[1];
  return wish !== undefined && !asksFor(slot!, wish);
}

/** Whether a slot's name, entity or prompts have a word in them. */
const asksFor = (slot: Slot, word: string): boolean =>
  [slot.name, slot.entity, ...allWordings(slot.prompts)].some((words) =>
    words.toLowerCase().includes(word.toLowerCase()),
  );

/** A text, and what was read in it. */
interface Read {
  text: string;
  /** The whole message, where the text is a part of it and all else is blank there. */
  whole?: string;
  readings: readonly SlotReading[];
  /** Every value found in the whole message; what is not wanted is no reading. */
  found?: readonly Candidate[];
}

/** "Friday 5", or "5.30" where a time is asked for: a figure is an hour. */
function asHours(
  document: BotDocument,
  form: Form,
  { text, readings }: Read,
  { held, asked }: { held: Values; asked: string | null },
): SlotReading[] {
  const kind = (name: string) => kindOfSlot(document, form, name);
  const wanted = form.slots.find(({ name }) => kind(name) === 'time' && !readings.some(({ slot }) => slot === name));
  if (!wanted) return [...readings];
  const { name: slot, entity } = wanted;
  const isHeld = heldOf(held, slot) !== undefined;
  const own = (value: string, { start, end }: { start: number; end: number }): SlotReading => ({
    slot,
    entity,
    start,
    end,
    text: text.slice(start, end),
    value,
    why: 'a figure that is an hour',
  });
  const clock = asked === slot || isHeld ? CLOCK.exec(text) : null;
  const [start, end] = [clock?.index ?? 0, (clock?.index ?? 0) + (clock?.[0].length ?? 0)];
  const others = readings.filter((reading) => !clock || kind(reading.slot) !== 'number' || reading.start !== start);
  const time = clock ? timeFor({ value: Number.NaN, digits: null, words: clock[0] }) : undefined;
  if (time !== undefined && others.every((other) => other.end <= start || other.start >= end))
    return [...others, own(time, { start, end })].sort((a, b) => a.start - b.start);
  return readings.map((reading, at) => {
    const before = readings[at - 1];
    const afterDay =
      before !== undefined && kind(before.slot) === 'date' && text.slice(before.end, reading.start).trim() === '';
    const isFigure = kind(reading.slot) === 'number' && reading.slot !== asked && /^\d+$/.test(reading.text);
    if (!afterDay || !isFigure || isHeld || typeof reading.value !== 'number') return reading;
    const value = timeFor({ value: reading.value, digits: reading.text, words: reading.text });
    return value === undefined ? reading : own(value, reading);
  });
}

/** An hour said without its half of the day is in the evening where the form holds an evening. */
function inHalf(document: BotDocument, form: Form, reading: SlotReading, held: Values): SlotReading {
  if (kindOfSlot(document, form, reading.slot) !== 'time' || typeof reading.value !== 'string') return reading;
  if (languageOf(document).values.tellsHalfOfDay(reading.text)) return reading;
  const value = timeNear(reading.value, heldOf(held, reading.slot));
  return value === undefined ? reading : { ...reading, value };
}

/** "Friday or Saturday" is a choice for one slot, though the form has another of the same kind. */
function asOneChoice(text: string, readings: readonly SlotReading[], { values }: Language): SlotReading[] {
  const kept: SlotReading[] = [];
  for (const reading of readings) {
    const last = kept.at(-1);
    const chooses =
      last !== undefined &&
      last.entity === reading.entity &&
      last.slot !== reading.slot &&
      values.areOneChoice(text.slice(last.end, reading.start));
    kept.push(chooses ? { ...reading, slot: last.slot } : reading);
  }
  return kept;
}

/** "Change the tea to the class": what is held is named only to say what is to be in its place. */
function isReplaced(
  { text, readings }: Read,
  { slot, value, start, end }: SlotReading,
  { changes }: Language,
  held: Values,
): boolean {
  if (
    ![heldOf(held, slot) ?? []].flat().some((own) => sameValue(own, value)) ||
    changes.tells(text.slice(0, start), text.slice(end)) >= 0
  )
    return false;
  return readings.some((other) => other.slot === slot && other.start > end && !sameValue(other.value, value));
}

/** "Change Friday to Saturday", of a day that is held, is no stretch from one to the other. */
function newEnd(text: string, reading: SlotReading, { changes }: Language, held: Values): SlotReading {
  const [from, to] = typeof reading.value === 'string' ? reading.value.split('/') : [];
  const isChange = to !== undefined && sameValue(from, heldOf(held, reading.slot));
  return isChange && changes.asksToChange(text.slice(0, reading.start)) ? { ...reading, value: to } : reading;
}

/** "And the gears too": what a list slot holds and may hold more of, with what a message adds to it. */
function addedTo(
  document: BotDocument,
  form: Form,
  { text, given, held }: { text: string; given: Values; held: Values },
): Values {
  const isCounted = form.slots.some((slot) => kindOf(document, slot) === 'number');
  if (isCounted || !languageOf(document).values.addsMore(text)) return {};
  const lists = form.slots.filter((slot) => kindOf(document, slot) === 'list' && holdsSeveral(document, slot));
  return heldBy(
    lists.flatMap(({ name }) => {
      const [before, more] = [heldOf(held, name), heldOf(given, name)];
      if (before === undefined || more === undefined) return [];
      const all = distinct([before, more].flat());
      return all.length > 1 ? [[name, all]] : [];
    }),
  );
}

/**
 * Gathers what was read in a message into one value a slot. Two values for a slot that holds one are to be asked about,
 * the parts of one sum are added, and what cannot be is told to be wrong; nothing is dropped in silence.
 * @param readings in text order
 * @param today local ISO time; days before it are gone by. `null` where it is not known
 * @param asked the slot that was asked for
 */
export function gatherValues(
  document: BotDocument,
  form: Form,
  { text, whole = text, readings, found = [] }: Read,
  { today, held = {}, asked = null }: { today: string | null; held?: Values; asked?: string | null },
): GivenValues {
  const language = languageOf(document);
  const replaced = readings.filter((reading) => isReplaced({ text, readings }, reading, language, held));
  const meant = readings
    .filter((reading) => !replaced.includes(reading))
    .map((reading) => newEnd(text, reading, language, held));
  const near = meant.map((reading) => {
    const own = inHalf(document, form, reading, held);
    const placed = own.slot === asked ? own : nearHeld(own, heldOf(held, own.slot), { today, language });
    const slot = form.slots.find(({ name }) => name === placed.slot);
    return { ...placed, value: goneBy(document, slot, placed, today) };
  });
  const hours = asHours(document, form, { text, readings: near }, { held, asked });
  const counting = asOneChoice(text, hours, language).filter(
    (reading) => ![isSpan, isNumberOf, isFurtherWish].some((is) => is(document, form, text, reading)),
  );
  const { readings: kept, paired, firstOf } = oneThing(document, form, text, counting);
  const given: Values = {};
  const wrong: WrongValue[] = [];
  let between: GivenValues['between'] = null;
  for (const slot of form.slots) {
    const own = kept.filter((reading) => reading.slot === slot.name);
    if (own.length === 0) continue;
    const fits = own.filter(({ value }) => wrongValue(document, slot, value, today) === null);
    if (fits.length === 0) {
      wrong.push({ slot: slot.name, text: wrongValue(document, slot, own[0]!.value, today)! });
      continue;
    }
    const result = joined(document, slot, fits, { text, paired });
    if ('value' in result) putHeld(given, slot.name, result.value);
    else between ??= { slot: slot.name, values: result.between };
  }
  Object.assign(given, addedTo(document, form, { text, given, held }));
  const order = orderWith(document, form, { text, whole, given, readings: kept, replaced, found, held });
  if (order) Object.assign(given, order.values);
  const left = order?.lacksNumber ? sayThings(document, form, order.values, mainLanguage(document)) : firstOf;
  const unfit = settleEnds(document, form, { text, readings: kept, given, held });
  if (unfit !== null) wrong.push({ slot: unfit, text: 'endsBefore' });
  if (namesNoDay(tokenise(text), language)) {
    const days = form.slots.filter(
      (item) => kindOf(document, item) === 'date' && heldOf(given, item.name) === undefined,
    );
    const slot = days.find(({ name }) => name === asked) ?? days[0];
    if (slot) wrong.push({ slot: slot.name, text: 'noSuchDay' });
  }
  return { given, wrong, between: order ? null : between, firstOf: left, ordered: order !== null };
}
