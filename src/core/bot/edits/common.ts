import { closest } from '../../text/distance.js';
import { NAME_PATTERN, findEntity, findForm, type BotDocument, type Intent } from '../document.js';
import { renameMarks } from '../marking.js';
import type { Fault } from '../schema.js';

/** An act that cannot be done, with a sentence for the person who asked for it. */
export class EditError extends Error {
  constructor(
    message: string,
    readonly faults: Fault[] = [],
  ) {
    super(message);
  }
}

/** A document after an act, and what the act was, for undo. */
export interface Edited {
  document: BotDocument;
  label: string;
}

export const count = (number: number, one: string, many = `${one}s`): string =>
  `${number} ${number === 1 ? one : many}`;

/** A name as it is kept. @throws EditError if it is no name or belongs to another */
export function requireName(name: string, what: string, others: readonly { name: string }[]): string {
  const trimmed = name.trim();
  if (trimmed === '') throw new EditError(`Give the ${what} a name.`);
  if (!NAME_PATTERN.test(trimmed)) {
    throw new EditError(`"${trimmed}" is no name: use letters, digits, _ and -, beginning with a letter.`);
  }
  if (others.some((other) => other.name === trimmed)) {
    throw new EditError(`There is another ${what} "${trimmed}"; choose another name.`);
  }
  return trimmed;
}

/** The thing of that name. @throws EditError if there is none */
export function named<T extends { name: string }>(list: readonly T[], name: string, what: string): T {
  const found = list.find((item) => item.name === name);
  if (found) return found;
  const near = closest(
    name,
    list.map((item) => item.name),
  );
  throw new EditError(`There is no ${what} "${name}"${near ? `; did you mean "${near}"?` : '.'}`);
}

export function replace<T extends { name: string }>(list: readonly T[], name: string, change: (item: T) => T): T[] {
  return list.map((item) => (item.name === name ? change(item) : item));
}

/** What of a thing can be changed; `null` takes a part away that may be missing, a part not named stays. */
export type Change<T> = { [K in keyof T]?: undefined extends T[K] ? T[K] | null : T[K] };

/** The thing with the change; an empty text or list is the same as none where the part may be missing. */
export function changed<T extends object>(item: T, to: Change<T>, optional: readonly (keyof T)[]): T {
  const next: T = { ...item, ...to };
  for (const key of optional) {
    const value: unknown = next[key];
    if (value === null || value === undefined || value === '' || (Array.isArray(value) && value.length === 0)) {
      Reflect.deleteProperty(next, key);
    }
  }
  return next;
}

/** Marks name slots of the intent's form, or entities where it has none; they follow when the form changes. */
export function marksForForm(document: BotDocument, intent: Intent, formName: string | undefined): string[] {
  const from = findForm(document, intent.form);
  const to = findForm(document, formName);
  let utterances = intent.utterances;
  for (const slot of from?.slots ?? []) {
    if (to?.slots.some((other) => other.name === slot.name)) continue;
    const target = to?.slots.find((other) => other.entity === slot.entity)?.name;
    const entity = findEntity(document, slot.entity)?.name ?? null;
    utterances = utterances.map((utterance) => renameMarks(utterance, slot.name, target ?? entity));
  }
  return utterances;
}
