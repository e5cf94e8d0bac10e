/**
 * What is held by names that people give: slots, intents, forms. A name may be one that every object has from its making
 * ("constructor", "toString", "__proto__"), so these are never indexed but asked by the functions here; the type has no
 * index, and the compiler holds everybody to it. As data they are plain objects.
 */
declare const HELD: unique symbol;
export interface Named<T> {
  readonly [HELD]?: T;
}

type Plain<T> = Readonly<Record<string, T>>;
const plain = <T>(held: Named<T>): Plain<T> => held as Plain<T>;

/** What is held under some names; a later one of the same name takes the place of an earlier one. */
export const heldBy = <T>(entries: Iterable<readonly [string, T]>): Named<T> => Object.fromEntries(entries);

/** The same of what is written out. */
export const namedAs = <T>(held: Readonly<Record<string, T>>): Named<T> => held;

/** What is held under a name; `undefined` where nothing is. */
export const heldOf = <T>(held: Named<T>, name: string): T | undefined =>
  Object.hasOwn(held, name) ? plain(held)[name] : undefined;

/** All that is held, with its names. */
export const entriesOf = <T>(held: Named<T>): [string, T][] => Object.entries(plain(held));

/** The same without what is under a name. */
export const withoutHeld = <T>(held: Named<T>, name: string): Named<T> =>
  heldBy(entriesOf(held).filter(([other]) => other !== name));

/** Puts a value under a name, in what the caller has just made. */
export function putHeld<T>(held: Named<T>, name: string, value: T): void {
  Object.defineProperty(held, name, { value, enumerable: true, configurable: true, writable: true });
}

/** Takes away what is under a name, from what the caller has just made. */
export function dropHeld(held: Named<unknown>, name: string): void {
  Reflect.deleteProperty(held, name);
}
