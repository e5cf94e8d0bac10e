import { kindOf, type BotDocument, type Form } from '../bot/document.js';
import { allWordings } from '../bot/localised.js';
import { languageOf } from '../language/index.js';
import type { Candidate } from '../recognise/finders/finder.js';
import type { SlotReading } from '../recognise/slots.js';
import { sameValue, type Value, type Values } from '../recognise/value.js';
import { argumentsBeside } from '../say/message.js';
import { renderMessage } from '../say/render.js';
import { entriesOf, heldBy, heldOf, putHeld, type Named } from '../text/named.js';

/** The slots that tell of the things of an order. */
export interface LineSlots {
  /** How many of each. */
  number: string;
  /** What each is, the thing itself last: "large", "rose". */
  lists: string[];
}

/** One thing of an order, by slot. */
type Line = Named<Value>;

/**
 * The slots of a form that hold the things of an order: what belongs to a thing stands beside its number in the
 * read-back, "{quantity} {size} {plant}". `null` where nothing does, or where several numbers are asked for.
 */
export function lineSlots(document: BotDocument, form: Form): LineSlots | null {
  const [number, other] = form.slots.filter((slot) => kindOf(document, slot) === 'number');
  if (!number || other) return null;
  const lists = form.slots.filter((slot) => kindOf(document, slot) === 'list').map(({ name }) => name);
  const beside = allWordings(form.confirm).flatMap((text) => argumentsBeside(text, number.name));
  const things = beside.filter((name) => lists.includes(name));
  return things.length > 0 ? { number: number.name, lists: [...new Set(things)] } : null;
}

/** The things that values tell of; `null` where they do not pair off. */
function linesOf(values: Values, { number, lists }: LineSlots): Line[] | null {
  const names = [number, ...lists].filter((name) => heldOf(values, name) !== undefined);
  const lengths = names.flatMap((name) => {
    const value = heldOf(values, name);
    return Array.isArray(value) ? [value.length] : [];
  });
  const length = lengths[0] ?? 1;
  const paired = lengths.length === 0 || Array.isArray(heldOf(values, number)) || heldOf(values, number) === undefined;
  if (!paired || lengths.some((other) => other !== length)) return null;
  return Array.from({ length }, (_, at) =>
    Object.fromEntries(
      names.map((name): [string, Value] => {
        const value = heldOf(values, name)!;
        return [name, Array.isArray(value) ? value[at]! : value];
      }),
    ),
  );
}

/** What things come to, slot by slot. */
function valuesOf(lines: readonly Line[], { number, lists }: LineSlots): Values {
  const [first] = lines;
  if (!first || lines.length === 1) return { ...first };
  const ofSlot = (name: string) => lines.flatMap((line) => heldOf(line, name) ?? []);
  const things = lists
    .map((name) => [name, ofSlot(name)] as const)
    .filter(([, values]) => values.length === lines.length);
  return {
    [number]: ofSlot(number),
    ...heldBy(
      things.map(([name, values]) => [
        name,
        values.every((value) => sameValue(value, values[0])) ? values[0]! : values,
      ]),
    ),
  };
}

/** The things of an order in words: "1 large rose and 2 small lavender". */
export function sayThings(document: BotDocument, form: Form, values: Values, tag: string): string {
  const slots = lineSlots(document, form);
  const names = slots ? [slots.number, ...slots.lists] : [];
  return renderMessage(names.map((name) => `{${name}}`).join(' '), values, tag, document.region);
}

/** Things with those that are the same counted together. */
function together(lines: readonly Line[], { number, lists }: LineSlots): Line[] {
  const all: Line[] = [];
  for (const line of lines) {
    const same = all.find((other) => lists.every((name) => sameValue(heldOf(other, name), heldOf(line, name))));
    if (same) putHeld(same, number, Number(heldOf(same, number)) + Number(heldOf(line, number)));
    else all.push({ ...line });
  }
  return all;
}

/** A message about an order, with what is ordered so far. */
interface Ordering {
  text: string;
  /** The whole message, of which the text may be a part; all else of it is blank there. */
  whole: string;
  /** What the message gives, and what it was read from. */
  given: Values;
  readings: readonly SlotReading[];
  /** What is named only to say what is to be in its place: "swap the roses for lavender". */
  replaced: readonly SlotReading[];
  /** Every value found in the whole message; what is not wanted is no reading. */
  found: readonly Candidate[];
  held: Values;
}

/** "And two roses as well": the order with the things that a message adds; `null` where it does not say how many. */
function withMore(slots: LineSlots, lines: readonly Line[], more: readonly Line[], isOne: boolean): Line[] | null {
  const { number, lists } = slots;
  const last = lines.at(-1)!;
  const likeLast: Line = heldBy(
    lists.flatMap((name): [string, Value][] => {
      const value = heldOf(last, name);
      return value === undefined ? [] : [[name, value]];
    }),
  );
  const added = more.map((line): Line => ({ ...likeLast, ...(isOne ? { [number]: 1 } : {}), ...line }));
  return added.every((line) => heldOf(line, number) !== undefined) ? together([...lines, ...added], slots) : null;
}

/**
 * "No, three lavender", "make the rose small": the order with one of its things put right; `null` where none is meant.
 * @param named what the thing is until now
 */
function putRight(
  { lists }: LineSlots,
  lines: readonly Line[],
  line: Line,
  named = heldOf(line, lists.at(-1)!),
): Line[] | null {
  const thing = lists.at(-1)!;
  const meant = lines.filter((own) => named !== undefined && sameValue(heldOf(own, thing), named));
  const [own] = meant;
  if (!own || meant.length > 1 || entriesOf(line).every(([name, value]) => sameValue(heldOf(own, name), value)))
    return null;
  return lines.map((other) => (other === own ? { ...own, ...line } : other));
}

/** "Without the ferns": the order without the things that are taken off; `null` where none is, or all are. */
function withLess(
  document: BotDocument,
  form: Form,
  { text, whole, found }: Pick<Ordering, 'text' | 'whole' | 'found'>,
  { slots, lines }: { slots: LineSlots; lines: readonly Line[] },
): Line[] | null {
  const thing = form.slots.find(({ name }) => name === slots.lists.at(-1))!;
  const { takesOff } = languageOf(document).values;
  const off = found.filter(
    ({ entity, start, end }) =>
      entity === thing.entity && text.slice(start, end).trim() !== '' && takesOff(whole.slice(0, start)),
  );
  const rest = lines.filter((line) => !off.some(({ value }) => sameValue(heldOf(line, thing.name), value)));
  return rest.length > 0 && rest.length < lines.length ? rest : null;
}

/** "No roses, and five ferns": what is left, with what else a message says of it. */
function andThen(slots: LineSlots, rest: Line[], line: Line): Line[] {
  const thing = slots.lists.at(-1)!;
  const [only, ...others] = rest;
  if (
    others.length === 0 &&
    (heldOf(line, thing) === undefined || sameValue(heldOf(line, thing), heldOf(only!, thing)))
  )
    return [{ ...only!, ...line }];
  return (
    putRight(slots, rest, line) ??
    (heldOf(line, thing) === undefined ? rest : (withMore(slots, rest, [line], false) ?? rest))
  );
}

/** What a message makes of an order of several things. */
export interface Ordered {
  /** The values of all things. */
  values: Values;
  /** Whether it adds something without saying how many, which was left out. */
  lacksNumber: boolean;
}

/**
 * What an order comes to with what a message adds to it, puts right or takes off; `null` where it does neither, so that
 * what it gives stands for itself.
 */
export function orderWith(
  document: BotDocument,
  form: Form,
  { text, whole, given, readings, replaced, found, held }: Ordering,
): Ordered | null {
  const slots = lineSlots(document, form);
  const lines = slots && linesOf(held, slots);
  const said = slots && linesOf(given, slots);
  if (!slots || !lines || !said || heldOf(held, slots.number) === undefined) return null;
  const ordered = (all: readonly Line[]): Ordered => ({ values: valuesOf(all, slots), lacksNumber: false });
  const rest = withLess(document, form, { text, whole, found }, { slots, lines });
  if (rest) return ordered(said.length > 1 ? rest : andThen(slots, rest, said[0]!));
  const thing = slots.lists.at(-1)!;
  const first = readings.find(({ slot }) => slots.lists.includes(slot));
  if (!first || heldOf(held, thing) === undefined) return null;
  const { values: words, clauses } = languageOf(document);
  const before = text.slice(0, first.start);
  const adds = words.addsMore(text) || (clauses.beginsByAdding(text) && !words.putsInPlace(text));
  // "And large" tells of what is ordered already.
  if (adds && (heldOf(given, thing) !== undefined || heldOf(given, slots.number) !== undefined)) {
    const all = withMore(slots, lines, said, words.one.test(before));
    return all ? ordered(all) : { values: valuesOf(lines, slots), lacksNumber: true };
  }
  if (lines.length < 2 || said.length > 1) return null;
  const former = replaced.find(({ slot }) => slot === thing)?.value;
  const right = putRight(slots, lines, said[0]!, former);
  return right ? ordered(right) : null;
}
