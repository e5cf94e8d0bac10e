import { NAMED_DAYS } from './dates/namedDays.js';
import { MONTHS, WEEKDAYS } from './calendar.js';
import { isOrdinalWord, readCount, readFractionOf } from './numbers.js';
import { periodOf } from './times.js';
import { said, type Count, type Word } from '../word.js';

/** Words without one of which no day is named, and none without one of which a time is; most messages have neither. */
const DAY_WORDS: ReadonlySet<string> = new Set([
  ...WEEKDAYS,
  ...MONTHS,
  ...[...NAMED_DAYS.keys()].map((name) => name.split(' ').at(-1)!),
  ...'sat sun mar today tonight tomorrow yesterday week weeks fortnight fortnights month months year years day days weekend moro morow morrow night holiday morning afternoon evening lunchtime spring summer autumn fall winter'.split(
    ' ',
  ),
]);
const TIME_WORDS: ReadonlySet<string> = new Set(
  'fifteen twenty thirty forty fifty half quarter past noon noonish midday middayish midnight oclock clock thing am pm morning mornings afternoon afternoons evening evenings night nights lunchtime lunch at around about by before after until till til between from to ish hours hrs'.split(
    ' ',
  ),
);
export const isOfDay = ({ said }: Word): boolean => DAY_WORDS.has(said) || /^\d/.test(said) || isOrdinalWord(said);
export const isOfTime = ({ said }: Word): boolean => TIME_WORDS.has(said) || /^\d/.test(said);

/** "The party has grown from four to seven" speaks of no hours. */
const GROWS = /^(?:grown|grew|gone|went|increased|risen|rose|changed|up|down|dropped|fallen|numbers?|party|group)$/;

export function isGrowth(words: readonly Word[], at: number): boolean {
  const from = words[at]?.said === 'from' ? at : words[at - 1]?.said === 'from' ? at - 1 : -1;
  return from > 0 && GROWS.test(words[from - 1]!.said);
}

/** Little words before a day or a time that are no part of it, and those that belong to it all the same. */
const LEAD = /^(?:on|by|for|at|until|till|til|before|after|around|about)$/;
export const leadsToMoment = ({ said }: Word): boolean => LEAD.test(said);

const BETWEEN = /^(?:at|on|by|in|of|the|around|about|from|between|for|any|time|t)$/;
/** Little words that may stand between a day and its time. */
export const joinsMoments = ({ said }: Word): boolean => BETWEEN.test(said);

/** The stretch of a day, in minutes, that its own name tells: "tonight". */
export function partNamed({ said }: Word): { from: number; to: number } | null {
  if (said !== 'tonight') return null;
  const [from, to] = periodOf('evening')!;
  return { from, to };
}

const SPAN_UNITS: ReadonlyMap<string, number> = new Map([
  ['hour', 60],
  ['hr', 60],
  ['minute', 1],
  ['min', 1],
]);

/** "in two hours", "in half an hour": so many minutes from now. */
export function readMinutesAhead(words: readonly Word[], at: number): Count | null {
  if (said(words, at) !== 'in') return null;
  const from = /^(?:about|around|another)$/.test(said(words, at + 1)) ? at + 2 : at + 1;
  const article = /^an?$/.test(said(words, from));
  const count = readFractionOf(words, from) ?? (article ? { value: 1, next: from + 1 } : readCount(words, from));
  const unit = count ? SPAN_UNITS.get(said(words, count.next).replace(/s$/, '')) : undefined;
  if (!count || unit === undefined) return null;
  const half = ['and', 'a', 'half'].every((word, index) => said(words, count.next + 1 + index) === word);
  return { value: Math.round((count.value + (half ? 0.5 : 0)) * unit), next: count.next + (half ? 4 : 1) };
}
