import {
  isArgumentElement,
  isDateElement,
  isLiteralElement,
  isNumberElement,
  isNumberSkeleton,
  isDateTimeSkeleton,
  isPluralElement,
  isPoundElement,
  isSelectElement,
  isTagElement,
  isTimeElement,
  parse,
  type MessageFormatElement,
} from '@formatjs/icu-messageformat-parser';

/** How a text uses an argument: as it stands, in a format, or to choose between wordings. */
export type ArgumentUse = 'plain' | 'number' | 'date' | 'time' | 'plural' | 'ordinal' | 'select';

/** An argument of a text: `{quantity, plural, …}`. Offsets are UTF-16 code units of the source. */
export interface MessageArgument {
  name: string;
  use: ArgumentUse;
  /** What a choice names, without `other`. */
  options: string[];
  /** Where the name stands. */
  start: number;
  end: number;
}

/** Why a text cannot be read, and where. Offsets are UTF-16 code units of the source. */
export interface MessageFault {
  /** In a sentence without a full stop. */
  message: string;
  start: number;
  end: number;
}

/** A part of a text. Plain data. */
export type MessagePart =
  | { part: 'literal'; text: string }
  | { part: 'value'; name: string }
  | { part: 'number'; name: string; options: Intl.NumberFormatOptions }
  | { part: 'date' | 'time'; name: string; options: Intl.DateTimeFormatOptions }
  | { part: 'select'; name: string; options: ReadonlyMap<string, readonly MessagePart[]> }
  | {
      part: 'plural';
      name: string;
      ordinal: boolean;
      offset: number;
      options: ReadonlyMap<string, readonly MessagePart[]>;
    }
  | { part: 'count' };

/** A text that was read. */
export interface Message {
  parts: readonly MessagePart[];
  arguments: readonly MessageArgument[];
}

export type MessageRead = { ok: true; message: Message } | { ok: false; fault: MessageFault };

/** What is wrong, by the parser's name for it; none of its own words reach a person. */
const FAULTS: Readonly<Record<string, string>> = {
  EXPECT_ARGUMENT_CLOSING_BRACE: 'a brace is opened here and not closed: write the name and then }',
  EMPTY_ARGUMENT: 'there is no name between these braces: write one, such as {quantity}',
  MALFORMED_ARGUMENT: 'a name between braces has letters, digits, _ and - alone',
  EXPECT_ARGUMENT_TYPE: 'after the comma a form is wanted: number, date, time, plural or select',
  INVALID_ARGUMENT_TYPE: 'this form is not known: it may be number, date, time, plural or select',
  EXPECT_ARGUMENT_STYLE: 'after the second comma a form is wanted, such as short or long',
  EXPECT_SELECT_ARGUMENT_OPTIONS: 'a choice needs its wordings: {size, select, small {…} other {…}}',
  EXPECT_SELECT_ARGUMENT_SELECTOR: 'a choice needs a value before each wording: small {…} other {…}',
  EXPECT_SELECT_ARGUMENT_SELECTOR_FRAGMENT:
    'after a value its wording must follow in braces; a value of several words is written with _ between them',
  EXPECT_PLURAL_ARGUMENT_SELECTOR: 'a plural needs its wordings: one {…} other {…}',
  EXPECT_PLURAL_ARGUMENT_SELECTOR_FRAGMENT: 'after one, other or =2 the wording must follow in braces',
  INVALID_PLURAL_ARGUMENT_SELECTOR: 'a plural has one, other, or a number such as =2 before each wording',
  DUPLICATE_PLURAL_ARGUMENT_SELECTOR: 'this case stands twice',
  DUPLICATE_SELECT_ARGUMENT_SELECTOR: 'this value stands twice',
  MISSING_OTHER_CLAUSE: 'there is no wording for the rest: add other {…}',
  UNCLOSED_QUOTE_IN_ARGUMENT_STYLE: 'an apostrophe is opened here and not closed',
};
const OTHER_FAULT = 'this cannot be read; braces name what is put in: {quantity}';

const DATE_STYLES: Readonly<Record<string, Intl.DateTimeFormatOptions>> = {
  short: { day: '2-digit', month: '2-digit', year: '2-digit' },
  medium: { day: 'numeric', month: 'short', year: 'numeric' },
  long: { day: 'numeric', month: 'long', year: 'numeric' },
  full: { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' },
};
const TIME_STYLE: Intl.DateTimeFormatOptions = { hour: 'numeric', minute: '2-digit' };
const NUMBER_STYLES: Readonly<Record<string, Intl.NumberFormatOptions>> = {
  integer: { maximumFractionDigits: 0 },
  percent: { style: 'percent' },
};

/** Deeper nesting than any bot needs; more of it runs out of stack. */
const DEEPEST = 12;
const LONGEST = 20_000;

const named = <T>(table: Readonly<Record<string, T>>, key: unknown, otherwise: T): T =>
  typeof key === 'string' && Object.hasOwn(table, key) ? table[key]! : otherwise;

function partsOf(elements: readonly MessageFormatElement[]): MessagePart[] {
  return elements.map((element): MessagePart => {
    if (isPoundElement(element)) return { part: 'count' };
    if (isLiteralElement(element) || isTagElement(element)) return { part: 'literal', text: element.value };
    const name = element.value;
    if (isArgumentElement(element)) return { part: 'value', name };
    if (isNumberElement(element)) {
      const { style } = element;
      const options = isNumberSkeleton(style)
        ? (style.parsedOptions as Intl.NumberFormatOptions)
        : named(NUMBER_STYLES, style, {});
      return { part: 'number', name, options };
    }
    if (isDateElement(element) || isTimeElement(element)) {
      const { style } = element;
      const written = isDateTimeSkeleton(style)
        ? style.parsedOptions
        : isDateElement(element)
          ? named(DATE_STYLES, style, DATE_STYLES['medium']!)
          : TIME_STYLE;
      return { part: isDateElement(element) ? 'date' : 'time', name, options: written };
    }
    const options = new Map(Object.entries(element.options).map(([key, { value }]) => [key, partsOf(value)] as const));
    if (isSelectElement(element)) return { part: 'select', name, options };
    return { part: 'plural', name, ordinal: element.pluralType === 'ordinal', offset: element.offset, options };
  });
}

function useOf(element: MessageFormatElement): ArgumentUse | null {
  if (isLiteralElement(element) || isPoundElement(element) || isTagElement(element)) return null;
  if (isNumberElement(element)) return 'number';
  if (isDateElement(element)) return 'date';
  if (isTimeElement(element)) return 'time';
  if (isSelectElement(element)) return 'select';
  if (isPluralElement(element)) return element.pluralType === 'ordinal' ? 'ordinal' : 'plural';
  return 'plain';
}

function argumentsIn(source: string, elements: readonly MessageFormatElement[]): MessageArgument[] {
  return elements.flatMap((element): MessageArgument[] => {
    const use = useOf(element);
    if (use === null || isPoundElement(element)) return [];
    const start = source.indexOf(element.value, element.location?.start.offset ?? 0);
    const own = { name: element.value, use, start, end: start + element.value.length };
    if (!isSelectElement(element) && !isPluralElement(element)) return [{ ...own, options: [] }];
    const inside = Object.values(element.options).flatMap(({ value }) => argumentsIn(source, value));
    const options = Object.keys(element.options).filter((option) => option !== 'other');
    return [{ ...own, options }, ...inside];
  });
}

function deepest(source: string): number {
  let [depth, most] = [0, 0];
  for (const sign of source) {
    if (sign === '{') most = Math.max(most, ++depth);
    else if (sign === '}') depth--;
  }
  return most;
}

function readAnew(source: string): MessageRead {
  const refused = (message: string, start = 0, end = source.length): MessageRead => ({
    ok: false,
    fault: { message, start, end },
  });
  if (source.length > LONGEST) return refused(`a text has at most ${LONGEST.toLocaleString('en')} characters`);
  if (deepest(source) > DEEPEST * 2) return refused('braces stand too deep in each other');
  try {
    const elements = parse(source, { ignoreTag: true, requiresOtherClause: true, captureLocation: true });
    return { ok: true, message: { parts: partsOf(elements), arguments: argumentsIn(source, elements) } };
  } catch (error) {
    // The parser tells the name of the fault and marks the place.
    const { message: name, location } = error as {
      message?: string;
      location?: Record<'start' | 'end', { offset: number }>;
    };
    const start = Math.min(location?.start.offset ?? 0, Math.max(0, source.length - 1));
    return refused(named(FAULTS, name, OTHER_FAULT), start, Math.max(start + 1, location?.end.offset ?? source.length));
  }
}

const MOST_KEPT = 5000;
const kept = new Map<string, MessageRead>();

/** Reads a text of the bot: ICU MessageFormat, in which `<` and `>` are plain signs. Each text is read once. Never throws. */
export function readMessage(source: string): MessageRead {
  const known = kept.get(source);
  if (known) return known;
  if (kept.size >= MOST_KEPT) kept.clear();
  const result = readAnew(source);
  kept.set(source, result);
  return result;
}

/** The arguments of a text in their order; none of one that cannot be read. */
export function argumentsOf(source: string): readonly MessageArgument[] {
  const result = readMessage(source);
  return result.ok ? result.message.arguments : [];
}

const BLANK = /^\s*$/u;
const BLANK_OR_BRACKET = /^\s*\(?$/u;

/** Arguments that stand side by side, from a place on, with the blanks between them. */
export function argumentsFrom(
  parts: readonly MessagePart[],
  from: number,
  between: RegExp = BLANK,
): readonly MessagePart[] {
  const isArgument = (part: MessagePart | undefined) =>
    part?.part === 'value' || part?.part === 'number' || part?.part === 'plural';
  const isBlank = (part: MessagePart | undefined) => part?.part === 'literal' && between.test(part.text);
  let to = from;
  if (isArgument(parts[to])) to++;
  while (to > from && isBlank(parts[to]) && isArgument(parts[to + 1])) to += 2;
  return parts.slice(from, to);
}

/**
 * The arguments that stand side by side with one in a text, in brackets or not, itself among them, in their order; none
 * where it is not there.
 */
export function argumentsBeside(source: string, name: string): string[] {
  const result = readMessage(source);
  const parts = result.ok ? result.message.parts : [];
  for (let at = 0; at < parts.length; at++) {
    const names = argumentsFrom(parts, at, BLANK_OR_BRACKET).flatMap((part) => ('name' in part ? [part.name] : []));
    if (names.includes(name)) return names;
  }
  return [];
}

/** The text with another name for an argument, wherever it stands. A text that cannot be read stays as it is. */
export function renameArgument(source: string, from: string, to: string): string {
  const places = argumentsOf(source).filter(({ name }) => name === from);
  return places.reduceRight((text, { start, end }) => text.slice(0, start) + to + text.slice(end), source);
}

/** A fault as a person reads it, with the words around its place. */
export function showFault(source: string, { message, start, end }: MessageFault): string {
  const place = source.slice(start, Math.max(end, start + 1)).slice(0, 24);
  return place.trim() === '' ? message : `${message} (at “${place}”, sign ${start + 1})`;
}
