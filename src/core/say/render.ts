import { variants, type Localised } from '../bot/localised.js';
import type { SlotValue, Value, Values } from '../recognise/value.js';
import { heldBy, heldOf } from '../text/named.js';
import { argumentsFrom, readMessage, type MessagePart } from './message.js';
import { asDate, fitStretch, localeOf, sayDate, sayValue } from './sayValue.js';

/** What stands in the place of an argument that holds nothing, until the words around it are settled. */
const HOLE = '\uE000';
/** Stands before what was put in, so that it is known which words speak of something. */
const FILLED = '\uE001';
const MARKS = /[\uE000\uE001]/gu;

/** A choice names a value by its words with `_` between them. */
const optionOf = (value: string): string => value.trim().replace(/[\s-]+/gu, '_');

const isEmpty = (value: SlotValue | undefined): value is undefined =>
  value === undefined || value === '' || (Array.isArray(value) && value.length === 0);

const single = (value: SlotValue): Value | null =>
  Array.isArray(value) ? (value.length === 1 ? value[0]! : null) : value;

const plainNumber = (value: SlotValue): number | null => {
  const one = single(value);
  return typeof one === 'number' && Number.isFinite(one) ? one : null;
};

class Renderer {
  readonly #values: Values;
  readonly #locale: string;

  constructor(values: Values, locale: string) {
    this.#values = values;
    this.#locale = locale;
  }

  write(parts: readonly MessagePart[], count = ''): string {
    let text = '';
    for (let at = 0; at < parts.length;) {
      const run = argumentsFrom(parts, at);
      const things = this.#thingsIn(run);
      if (things.length > 0) {
        const each = things.map((values) => new Renderer(values, this.#locale).write(run, count));
        text += new Intl.ListFormat(this.#locale, { type: 'conjunction' }).format(each);
        at += run.length;
      } else text = this.#add(text, parts[at++]!, count);
    }
    return text;
  }

  /** The values for each thing of an order of several, each with its number: "two roses and a fern"; none otherwise. */
  #thingsIn(run: readonly MessagePart[]): Values[] {
    const lists = run.flatMap((part): { name: string; list: readonly Value[] }[] => {
      const value = 'name' in part ? heldOf(this.#values, part.name) : undefined;
      return 'name' in part && Array.isArray(value) && value.length > 1 ? [{ name: part.name, list: value }] : [];
    });
    const [first, second] = lists;
    const areCounted = lists.some(({ list }) => list.every((value) => typeof value === 'number'));
    if (!first || !second || !areCounted || lists.some(({ list }) => list.length !== first.list.length)) return [];
    return first.list.map((_, at) => ({
      ...this.#values,
      ...heldBy(lists.map(({ name, list }): [string, Value] => [name, list[at]!])),
    }));
  }

  #add(text: string, part: MessagePart, count: string): string {
    if (part.part === 'literal') return text + part.text;
    if (part.part === 'count') return text + count;
    const value = heldOf(this.#values, part.name);
    if (part.part === 'select') return text + this.#select(part.options, value, count);
    if (isEmpty(value)) return text + HOLE;
    switch (part.part) {
      case 'value':
        return this.#plain(text, value);
      case 'number': {
        const number = plainNumber(value);
        return number === null ? this.#plain(text, value) : text + FILLED + this.#number(number, part.options);
      }
      case 'date':
      case 'time': {
        const one = single(value);
        const date = one === null ? null : asDate(one);
        const fits = date && (part.part === 'date' ? /^\d{4}-/ : /\d:\d/).test(typeof one === 'string' ? one : '');
        return fits ? text + FILLED + this.#date(date, part.options, value) : this.#plain(text, value);
      }
      case 'plural':
        return text + FILLED + this.#plural(part, value);
    }
  }

  #plain(text: string, value: SlotValue): string {
    const fitted = fitStretch(text, value, this.#locale);
    return fitted ? fitted.before + FILLED + fitted.said : text + FILLED + sayValue(value, this.#locale);
  }

  #number(number: number, options: Intl.NumberFormatOptions): string {
    try {
      return new Intl.NumberFormat(this.#locale, options).format(number);
    } catch {
      return sayValue(number, this.#locale);
    }
  }

  #date(date: Date, options: Intl.DateTimeFormatOptions, value: SlotValue): string {
    try {
      return sayDate(date, this.#locale, options);
    } catch {
      return sayValue(value, this.#locale);
    }
  }

  #select(options: ReadonlyMap<string, readonly MessagePart[]>, value: SlotValue | undefined, count: string): string {
    const said = typeof value === 'string' || typeof value === 'number' ? String(value) : '';
    const chosen =
      [...options].find(([option]) => optionOf(option).toLowerCase() === optionOf(said).toLowerCase())?.[1] ??
      options.get('other') ??
      [];
    return (isEmpty(value) ? '' : FILLED) + this.write(chosen, count);
  }

  #plural(part: Extract<MessagePart, { part: 'plural' }>, value: SlotValue): string {
    const number = plainNumber(value);
    const other = part.options.get('other') ?? [];
    if (number === null) return this.write(other, sayValue(value, this.#locale));
    const rule = new Intl.PluralRules(this.#locale, { type: part.ordinal ? 'ordinal' : 'cardinal' });
    const chosen = part.options.get(`=${number}`) ?? part.options.get(rule.select(number - part.offset)) ?? other;
    return this.write(chosen, this.#number(number - part.offset, {}));
  }
}

/** Where one clause of a text ends and the next begins. */
const CLAUSE = /(?<=[.!?;:,…])\s+|\n/gu;

/**
 * Leaves out the clauses that would have a hole and nothing else to say: "The ticket is {ticket}. See you on {day}."
 * Where a clause says something besides, only the hole is closed.
 */
function closeHoles(text: string): string {
  if (!text.includes(HOLE)) return text.replace(MARKS, '');
  const clauses = text.split(CLAUSE);
  const speaks = (clause: string) => !clause.includes(HOLE) || clause.includes(FILLED);
  const kept: string[] = [];
  let startsSentence = false;
  clauses.forEach((clause, at) => {
    if (speaks(clause)) {
      const words = clause.replace(MARKS, '');
      kept.push(startsSentence ? words.replace(/^\p{Ll}/u, (letter) => letter.toUpperCase()) : words);
      startsSentence = false;
      return;
    }
    const before = at === 0 || /[.!?…]$/.test(clauses[at - 1]!);
    if (before) startsSentence = !/[.!?…]$/.test(clause);
    // The sentence ends where its last clause was.
    else if (kept.length > 0)
      kept[kept.length - 1] = kept.at(-1)!.replace(/[,;:]$/, /[.!?…]$/.exec(clause)?.[0] ?? '$&');
  });
  const said = kept.join(' ').trim();
  return /[\p{L}\p{N}]/u.test(said) ? said : text.replace(MARKS, '');
}

function tidy(text: string): string {
  return text
    .replace(/ {2,}/g, ' ')
    .replace(/ ([.,;?!])/g, '$1')
    .trim();
}

/**
 * Puts values into a text of the bot. Never throws: what does not fit its form is said plainly, and a clause that would
 * have a hole is left out. A text that cannot be read is said as it stands.
 */
export function renderMessage(
  source: string,
  values: Values | Readonly<Record<string, SlotValue | undefined>>,
  language: string,
  region: string,
): string {
  const result = readMessage(source);
  if (!result.ok) return tidy(source);
  return tidy(closeHoles(new Renderer(values, localeOf(language, region)).write(result.message.parts)));
}

/** The wording for a turn: variants take turns with `at`. `null` where nothing is written. */
export function chooseVariant(text: Localised | undefined, language: string, at: number): string | null {
  const all = variants(text, language);
  return all.length === 0 ? null : all[at % all.length]!;
}

/** The wording for a try: the first at the first, the next at the next, the last for the rest. */
export function wordingForTry(text: Localised | undefined, language: string, tries: number): string | null {
  const all = variants(text, language);
  return all.length === 0 ? null : all[Math.min(tries, all.length - 1)]!;
}
