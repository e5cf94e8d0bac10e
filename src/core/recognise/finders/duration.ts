import { readCount, readPart } from '../../language/en/numbers.js';
import type { Finder } from './finder.js';
import { joined, scanWords, wordsOfText, type Word } from './words.js';

type Unit = 'year' | 'month' | 'week' | 'day' | 'hour' | 'minute' | 'second';

const UNITS: ReadonlyMap<string, readonly [Unit, number]> = new Map([
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

/** How many of the next smaller unit each has, for parts of it. */
const SMALLER: Readonly<Record<Unit, readonly [Unit, number] | null>> = {
  year: ['month', 12],
  month: ['day', 30],
  week: ['day', 7],
  day: ['hour', 24],
  hour: ['minute', 60],
  minute: ['second', 60],
  second: null,
};
const ORDER: readonly Unit[] = ['year', 'month', 'week', 'day', 'hour', 'minute', 'second'];

type Amounts = Partial<Record<Unit, number>>;

function unitAt(words: readonly Word[], at: number): readonly [Unit, number] | undefined {
  const word = words[at]?.said ?? '';
  return UNITS.get(word) ?? (word.endsWith('s') ? UNITS.get(word.slice(0, -1)) : undefined);
}

function add(amounts: Amounts, [unit, times]: readonly [Unit, number], count: number): void {
  const value = count * times;
  const whole = Math.floor(value + 1e-9);
  if (whole > 0) amounts[unit] = (amounts[unit] ?? 0) + whole;
  const smaller = SMALLER[unit];
  const rest = value - whole;
  if (smaller && rest > 1e-9) amounts[smaller[0]] = (amounts[smaller[0]] ?? 0) + Math.round(rest * smaller[1]);
}

/** ISO 8601. Weeks beside other units are written as days, since the standard has them alone. */
function isoDuration(amounts: Amounts): string {
  const own = { ...amounts };
  if (own.week !== undefined && ORDER.some((unit) => unit !== 'week' && own[unit] !== undefined)) {
    own.day = (own.day ?? 0) + own.week * 7;
    delete own.week;
  }
  const part = (unit: Unit, letter: string) => (own[unit] === undefined ? '' : `${own[unit]}${letter}`);
  const time = part('hour', 'H') + part('minute', 'M') + part('second', 'S');
  return `P${part('year', 'Y')}${part('month', 'M')}${part('week', 'W')}${part('day', 'D')}${time === '' ? '' : `T${time}`}`;
}

/** One amount: "two hours", "half an hour", "an hour and a half", "1h". */
function readAmount(words: readonly Word[], at: number): { amounts: Amounts; next: number; unit: Unit } | null {
  const part = readPart(words, at);
  const article = /^an?$/.test(words[at]?.said ?? '') && unitAt(words, at + 1) ? { value: 1, next: at + 1 } : null;
  const fortnight = words[at]?.said === 'fortnight' ? { value: 1, next: at } : null;
  const count = part ?? article ?? fortnight ?? readCount(words, at);
  const unit = count && unitAt(words, count.next);
  if (!count || !unit || (count.next > at && !joined(words[count.next]))) return null;
  const amounts: Amounts = {};
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
  add(amounts, unit, value);
  return { amounts, next, unit: unit[0] };
}

function readDuration(words: readonly Word[], at: number): { value: string; next: number } | null {
  const first = readAmount(words, at);
  if (!first || words[first.next]?.said === 'ago') return null;
  let { next, unit } = first;
  for (;;) {
    const from = words[next]?.said === 'and' ? next + 1 : next;
    const more = words[from] && joined(words[from]) ? readAmount(words, from) : null;
    if (!more || ORDER.indexOf(more.unit) <= ORDER.indexOf(unit)) break;
    for (const [key, value] of Object.entries(more.amounts) as [Unit, number][])
      first.amounts[key] = (first.amounts[key] ?? 0) + value;
    ({ next, unit } = more);
  }
  return { value: isoDuration(first.amounts), next };
}

/** How long something lasts, as ISO 8601: "two and a half hours" is PT2H30M. */
export const durationFinder: Finder = {
  kinds: ['duration'],
  prepare: () => (text) => {
    const words = wordsOfText(text);
    return scanWords(words, (at) => readDuration(words, at));
  },
};
