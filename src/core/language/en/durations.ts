import type { AmountOfTime, Durations, SpanUnit } from '../language.js';
import { joined, type Word } from '../word.js';
import { readCount, readFractionOf } from './numbers.js';

const UNITS: ReadonlyMap<string, readonly [SpanUnit, number]> = new Map([
  ['year', ['year', 1]],
  ['yr', ['year', 1]],
  ['month', ['month', 1]],
  ['week', ['week', 1]],
  ['wk', ['week', 1]],
  ['fortnight', ['week', 2]],
  ['day', ['day', 1]],
  ['night', ['day', 1]],
  ['hour', ['hour', 1]],
  ['hr', ['hour', 1]],
  ['h', ['hour', 1]],
  ['minute', ['minute', 1]],
  ['min', ['minute', 1]],
  ['second', ['second', 1]],
  ['sec', ['second', 1]],
]);

function unitAt(words: readonly Word[], at: number): readonly [SpanUnit, number] | undefined {
  const word = words[at]?.said ?? '';
  return UNITS.get(word) ?? (word.endsWith('s') ? UNITS.get(word.slice(0, -1)) : undefined);
}

/** One amount: "two hours", "half an hour", "an hour and a half", "1h". */
function readAmount(words: readonly Word[], at: number): AmountOfTime | null {
  const part = readFractionOf(words, at);
  const article = /^an?$/.test(words[at]?.said ?? '') && unitAt(words, at + 1) ? { value: 1, next: at + 1 } : null;
  const fortnight = words[at]?.said === 'fortnight' ? { value: 1, next: at } : null;
  const count = part ?? article ?? fortnight ?? readCount(words, at);
  const unit = count && unitAt(words, count.next);
  if (!count || !unit || (count.next > at && !joined(words[count.next]))) return null;
  let value = count.value;
  let next = count.next + 1;
  // "an hour and a half": the part comes after the unit.
  if (
    words[next]?.said === 'and' &&
    /^an?$/.test(words[next + 1]?.said ?? '') &&
    /^(?:half|quarter)$/.test(words[next + 2]?.said ?? '')
  ) {
    value += words[next + 2]!.said === 'half' ? 0.5 : 0.25;
    next += 3;
  }
  return { unit: unit[0], value: value * unit[1], next };
}

export const DURATIONS: Durations = {
  readAmount,
  joins: (word) => word === 'and',
  isPast: (word) => word === 'ago',
};
