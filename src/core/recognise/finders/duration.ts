import type { Durations, SpanUnit } from '../../language/language.js';
import { joined, said, type Word } from '../../language/word.js';
import type { Finder } from './finder.js';
import { scanWords, wordsOfText } from './words.js';

/** How many of the next smaller unit each has, for parts of it. */
const SMALLER: Readonly<Record<SpanUnit, readonly [SpanUnit, number] | null>> = {
  year: ['month', 12],
  month: ['day', 30],
  week: ['day', 7],
  day: ['hour', 24],
  hour: ['minute', 60],
  minute: ['second', 60],
  second: null,
};
const ORDER: readonly SpanUnit[] = ['year', 'month', 'week', 'day', 'hour', 'minute', 'second'];

type Amounts = Partial<Record<SpanUnit, number>>;

function add(amounts: Amounts, { unit, value }: { unit: SpanUnit; value: number }): void {
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
  const part = (unit: SpanUnit, letter: string) => (own[unit] === undefined ? '' : `${own[unit]}${letter}`);
  const time = part('hour', 'H') + part('minute', 'M') + part('second', 'S');
  return `P${part('year', 'Y')}${part('month', 'M')}${part('week', 'W')}${part('day', 'D')}${time === '' ? '' : `T${time}`}`;
}

function readDuration(
  words: readonly Word[],
  at: number,
  { readAmount, joins, isPast }: Durations,
): { value: string; next: number } | null {
  const first = readAmount(words, at);
  if (!first || isPast(said(words, first.next))) return null;
  const amounts: Amounts = {};
  let amount = first;
  for (;;) {
    add(amounts, amount);
    const from = joins(said(words, amount.next)) ? amount.next + 1 : amount.next;
    const more = words[from] && joined(words[from]) ? readAmount(words, from) : null;
    if (!more || ORDER.indexOf(more.unit) <= ORDER.indexOf(amount.unit)) break;
    amount = more;
  }
  return { value: isoDuration(amounts), next: amount.next };
}

/** How long something lasts, as ISO 8601: "two and a half hours" is PT2H30M. */
export const durationFinder: Finder = {
  kinds: ['duration'],
  prepare:
    (_, { language }) =>
    (text) => {
      const words = wordsOfText(text, language);
      return scanWords(words, (at) => readDuration(words, at, language.durations));
    },
};
