import type { Slot } from '../bot/document.js';
import type { Language } from '../language/language.js';
import { mendWords } from '../text/mend.js';
import { tokensWithin, type TokenisedText } from '../text/tokens.js';

/** What a value is of a change: what was until now, or what is to be. */
export type Role = 'former' | 'coming';

/** A value in a text. Offsets are UTF-16 code units. */
interface Placed {
  start: number;
  end: number;
}

/**
 * The roles of slots that are two sides of a change: one holds what was, another of the same entity what is to be.
 * @param slots that take the same values
 */
export function rolesOf(slots: readonly Slot[], { changes }: Language): ReadonlyMap<string, Role> {
  const named = slots.map(({ name }): [string, Role | null] => [
    name,
    changes.isFormerName(name) ? 'former' : changes.isComingName(name) ? 'coming' : null,
  ]);
  const told = named.filter((one): one is [string, Role] => one[1] !== null);
  // "day" beside "new_day" is what was.
  const other = named.find(([, role]) => role === null);
  if (slots.length === 2 && told.length === 1 && other)
    return new Map([...told, [other[0], told[0]![1] === 'former' ? 'coming' : 'former']]);
  return new Set(told.map(([, role]) => role)).size === 2 ? new Map(told) : new Map();
}

const ENDS_SENTENCE = /[.!?;…]["'”’)]*\s/u;
/** How much it counts that of two values which no words tell apart what was is said first. */
const BY_ORDER = 0.5;

/** A stretch of a text with its misspelt words put right. */
const asRead = ({ text, tokens }: TokenisedText, from: number, to: number): string =>
  mendWords(
    text.slice(from, to),
    tokensWithin(tokens, from, to),
    ({ norm, mended }) => (mended === norm ? null : mended),
    from,
  ).text;

/**
 * How much each of the values that a message gives for a change tells that it is to be; below 0 it was.
 * @param values in text order
 */
export function changeTold(message: TokenisedText, values: readonly Placed[], { changes }: Language): number[] {
  const told: number[] = [];
  const last = values.length - 1;
  const order = (at: number) => (last === 0 ? 0 : at === 0 ? -BY_ORDER : at === last ? BY_ORDER : 0);
  const between = (from: number, to: number) => asRead(message, from, to);
  const before = (at: number) => between(values[at - 1]?.end ?? 0, values[at]!.start);
  const isCorrected = (at: number) => at < last && changes.corrects(before(at + 1));
  values.forEach(({ end }, at) => {
    const led = before(at);
    if (at > 0 && isCorrected(at - 1) && told[at - 1]! >= 0) {
      told.push(told[at - 1]!);
      return;
    }
    const words = led.split(ENDS_SENTENCE).at(-1)!;
    const after = between(end, values[at + 1]?.start ?? message.text.length).split(ENDS_SENTENCE)[0]!;
    told.push(changes.tells(words, after) + (isCorrected(at) ? 0 : order(at)));
  });
  return told;
}
