import { closest } from '../../text/distance.js';
import {
  NAME_PATTERN,
  findEntity,
  findForm,
  type BotDocument,
  type Intent,
  type RowId,
  type Utterance,
} from '../document.js';
import { renameMarks } from '../marking.js';
import { ActError, type ActContext } from './act.js';

export const count = (number: number, one: string, many = `${one}s`): string =>
  `${number.toLocaleString('en-GB')} ${number === 1 ? one : many}`;

/** A name as it is kept. @throws ActError if it is no name or belongs to another */
export function requireName(name: string, what: string, others: readonly { name: string }[]): string {
  const trimmed = name.trim();
  if (trimmed === '') throw new ActError(`Give the ${what} a name.`);
  if (!NAME_PATTERN.test(trimmed)) {
    throw new ActError(`"${trimmed}" is no name: use letters, digits, _ and -, beginning with a letter.`);
  }
  if (others.some((other) => other.name === trimmed)) {
    throw new ActError(`There is another ${what} "${trimmed}"; choose another name.`);
  }
  return trimmed;
}

/** The thing of that name. @throws ActError if there is none */
export function named<T extends { name: string }>(list: readonly T[], name: string, what: string): T {
  const found = list.find((item) => item.name === name);
  if (found) return found;
  const near = closest(
    name,
    list.map((item) => item.name),
  );
  throw new ActError(`There is no ${what} "${name}"${near ? `; did you mean "${near}"?` : '.'}`);
}

export function replace<T extends { name: string }>(list: readonly T[], name: string, change: (item: T) => T): T[] {
  return list.map((item) => (item.name === name ? change(item) : item));
}

/** What of a thing is to be changed; `null` takes a part away that may be missing, a part not named stays. */
type Change<T> = { [K in keyof T]?: T[K] | null | undefined };

/** The thing with the change; an empty text or list is the same as none where the part may be missing. */
export function changed<T extends object>(item: T, to: Change<T>, optional: readonly (keyof T)[]): T {
  const given = Object.entries(to).filter(([, value]) => value !== undefined);
  const next = { ...item, ...(Object.fromEntries(given) as Partial<T>) };
  for (const key of optional) {
    const value: unknown = next[key];
    if (value === null || value === undefined || value === '' || (Array.isArray(value) && value.length === 0)) {
      Reflect.deleteProperty(next, key);
    }
  }
  return next;
}

/** The list with each item changed; the same list where nothing is. */
export function mapped<T>(list: readonly T[], change: (item: T) => T): T[] {
  const next = list.map(change);
  return next.every((item, index) => item === list[index]) ? (list as T[]) : next;
}

/** The intent with its utterances changed; the same object where nothing is. */
export function withUtterances(intent: Intent, change: (utterance: Utterance) => Utterance): Intent {
  const utterances = mapped(intent.utterances, change);
  return utterances === intent.utterances ? intent : { ...intent, utterances };
}

/** Marks name slots of the intent's form, or entities where it has none; they follow when the form changes. */
export function marksForForm(
  document: BotDocument,
  utterances: readonly Utterance[],
  fromForm: string | undefined,
  toForm: string | undefined,
): Utterance[] {
  const from = findForm(document, fromForm);
  const to = findForm(document, toForm);
  let next = utterances as Utterance[];
  for (const slot of from?.slots ?? []) {
    if (to?.slots.some((other) => other.name === slot.name)) continue;
    const target = to?.slots.find((other) => other.entity === slot.entity)?.name;
    const entity = findEntity(document, slot.entity)?.name ?? null;
    next = mapped(next, (utterance) => renameMarks(utterance, slot.name, target ?? entity));
  }
  return next;
}

/**
 * The ids of rows that are added: those that were sent along, else new ones.
 * @throws ActError where a row has that id already
 */
export function idsFor(
  number: number,
  given: readonly RowId[] | undefined,
  others: Iterable<{ id: RowId }>,
  { newId }: ActContext,
): RowId[] {
  if (!given) return Array.from({ length: number }, newId);
  if (given.length !== number) throw new ActError('There must be an id for each row that is added.');
  const taken = new Set([...others].map(({ id }) => id));
  for (const id of given) {
    if (taken.has(id)) throw new ActError(`The row ${id} is there already.`);
    taken.add(id);
  }
  return [...given];
}
