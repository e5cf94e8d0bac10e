import { addMinutes } from 'date-fns';
import type { TokenisedText } from '../../text/tokens.js';
import { isOrdinalWord, readCount, readPart } from '../../language/en/numbers.js';
import { MONTHS, WEEKDAYS } from '../../language/en/calendar.js';
import { exists, isoDate, NAMED_DAYS, readLocalTime, type Days } from './dates/calendar.js';
import { readDay, readDayRange, type DayRead } from './dates/days.js';
import { noDayAt } from './dates/noDay.js';
import { isoTime, readTime, type TimeRead } from '../../language/en/times.js';
import type { Finder, Found } from './finder.js';
import { joined, scanWords, wordsOfText, type Word } from './words.js';

/** Words that name a day or a time; indices of the first and after the last. */
interface Reading<Read> {
  at: number;
  next: number;
  read: Read;
}

/** Everything that one way of reading finds, from left to right. */
function readAll<Read extends { next: number }>(words: readonly Word[], read: (at: number) => Read | null): Reading<Read>[] {
  const readings: Reading<Read>[] = [];
  for (let at = 0; at < words.length; ) {
    const found = read(at);
    if (found) {
      readings.push({ at, next: found.next, read: found });
      at = found.next;
    } else at++;
  }
  return readings;
}

interface TextTimes {
  now: string;
  region: string;
  words: Word[];
  days: Reading<DayRead>[];
  times: Reading<TimeRead>[];
}

/** What was read from a text last, so that several entities of dates read it once. */
const lastRead = new WeakMap<TokenisedText, TextTimes>();

/** Words without one of which no day is named, and none without one of which a time is; most messages have neither. */
const DAY_WORDS: ReadonlySet<string> = new Set([
  ...WEEKDAYS,
  ...MONTHS,
  ...[...NAMED_DAYS.keys()].map((name) => name.split(' ').at(-1)!),
  ...'sat sun mar today tonight tomorrow yesterday week weeks fortnight fortnights month months year years day days weekend moro morow morrow night holiday morning afternoon evening lunchtime spring summer autumn fall winter'.split(' '),
]);
const TIME_WORDS: ReadonlySet<string> = new Set(
  'fifteen twenty thirty forty fifty half quarter past noon noonish midday middayish midnight oclock clock thing am pm morning mornings afternoon afternoons evening evenings night nights lunchtime lunch at around about by before after until till til between from to ish hours hrs'.split(' '),
);
const speaksOfDays = ({ said }: Word): boolean => DAY_WORDS.has(said) || /^\d/.test(said) || isOrdinalWord(said);
const speaksOfTimes = ({ said }: Word): boolean => TIME_WORDS.has(said) || /^\d/.test(said);

/** "The party has grown from four to seven" speaks of no hours. */
const GROWS = /^(?:grown|grew|gone|went|increased|risen|rose|changed|up|down|dropped|fallen|numbers?|party|group)$/;

function isGrowth(words: readonly Word[], { at, read }: Reading<TimeRead>): boolean {
  if (read.from === read.to) return false;
  const from = words[at]?.said === 'from' ? at : words[at - 1]?.said === 'from' ? at - 1 : -1;
  return from > 0 && GROWS.test(words[from - 1]!.said);
}

function readTimes(text: TokenisedText, now: string, region: string): TextTimes {
  const known = lastRead.get(text);
  if (known?.now === now && known.region === region) return known;
  const words = wordsOfText(text);
  const context = { today: readLocalTime(now), region, known: new Map<number, DayRead | null>() };
  const days = !words.some(speaksOfDays) ? [] : readAll(words, (at): (DayRead & { none?: true }) | null => {
    const none = noDayAt(words, at);
    if (none > 0) return { from: context.today, to: context.today, next: none, none: true };
    const day = readDay(words, at, context);
    const range = readDayRange(words, at, context);
    return range && range.next > (day?.next ?? 0) ? range : day;
  }).filter(({ read }) => read.none === undefined);
  const inDay = (at: number) => days.some((day) => !day.read.withPart && at >= day.at && at < day.next);
  const times = (!words.some(speaksOfTimes) ? [] : readAll(words, (at) => (inDay(at) ? null : readTime(words, at)))).filter(
    ({ at, next }) => !days.some((day) => !day.read.withPart && day.at < next && at < day.next),
  );
  const read: TextTimes = { now, region, words, days, times: times.filter((time) => !isGrowth(words, time)) };
  lastRead.set(text, read);
  return read;
}

/** Little words before a day or a time that are no part of it. */
const LEAD = /^(?:on|by|for|at|until|till|til|before|after|in|during|around|about)$/;

function foundAt(words: readonly Word[], at: number, next: number, value: string): Found {
  const first = at < next - 1 && LEAD.test(words[at]!.said) && !/^(?:in|during)$/.test(words[at]!.said) ? at + 1 : at;
  return { start: words[first]!.start, end: words[next - 1]!.end, value, match: 'computed' };
}

const dayValue = ({ from, to }: Days): string =>
  isoDate(from) === isoDate(to) ? isoDate(from) : `${isoDate(from)}/${isoDate(to)}`;

const timeValue = ({ from, to }: TimeRead): string => (from === to ? isoTime(from) : `${isoTime(from)}/${isoTime(to)}`);

/** Days: an ISO date, or an interval where two days bound it. */
export const dateFinder: Finder = {
  kinds: ['date'],
  prepare(_, { region }) {
    return (text, now) => {
      const { words, days } = readTimes(text, now, region);
      return days.map(({ at, next, read }) => {
        const found = foundAt(words, at, next, dayValue(read));
        const ends = read.ends?.map((end) => foundAt(words, end.at, end.next, isoDate(end.day)));
        return ends ? { ...found, ends } : found;
      });
    };
  },
};

const SPAN_UNITS: ReadonlyMap<string, number> = new Map([
  ['hour', 60],
  ['hr', 60],
  ['minute', 1],
  ['min', 1],
]);

/** "in two hours", "in half an hour": a moment reckoned from now. */
function fromNow(words: readonly Word[], now: string): Reading<{ next: number; moment: string }>[] {
  return readAll(words, (at) => {
    if (words[at]!.said !== 'in') return null;
    const from = /^(?:about|around|another)$/.test(words[at + 1]?.said ?? '') ? at + 2 : at + 1;
    const article = /^an?$/.test(words[from]?.said ?? '');
    const count = readPart(words, from) ?? (article ? { value: 1, next: from + 1 } : readCount(words, from));
    const unit = count ? SPAN_UNITS.get((words[count.next]?.said ?? '').replace(/s$/, '')) : undefined;
    if (!count || unit === undefined) return null;
    const half = ['and', 'a', 'half'].every((word, index) => words[count.next + 1 + index]?.said === word);
    const moment = addMinutes(readLocalTime(now), Math.round((count.value + (half ? 0.5 : 0)) * unit));
    if (!exists(moment)) return null;
    return { next: count.next + (half ? 4 : 1), moment: `${isoDate(moment)}T${isoTime(moment.getHours() * 60 + moment.getMinutes())}` };
  });
}

/** Times of day as `HH:MM`, or an interval of two. */
export const timeFinder: Finder = {
  kinds: ['time'],
  prepare(_, { region }) {
    return (text, now) => {
      const { words, times } = readTimes(text, now, region);
      return [
        ...joinTimes(words, times).map(({ at, next, read }) => foundAt(words, at, next, timeValue(read))),
        ...fromNow(words, now).map(({ at, next, read }) => foundAt(words, at, next, read.moment.slice(-5))),
      ].sort((a, b) => a.start - b.start);
    };
  },
};

const BETWEEN = /^(?:at|on|by|in|of|the|around|about|from|between|for|any|time|t)$/;

/** Whether only little words stand between two readings. */
function beside(words: readonly Word[], next: number, at: number): boolean {
  if (at < next || at - next > 3) return false;
  for (let place = next; place < at; place++) if (!BETWEEN.test(words[place]!.said) || !joined(words[place])) return false;
  return joined(words[at]);
}

/** A part of the day beside a time by the clock tells which half of the day is meant: "evening at seven". */
function joinTimes(words: readonly Word[], times: readonly Reading<TimeRead>[]): Reading<TimeRead>[] {
  const kept: Reading<TimeRead>[] = [];
  for (const time of times) {
    const last = kept.at(-1);
    if (last && last.read.part !== time.read.part && beside(words, last.next, time.at)) {
      const [part, clock] = last.read.part ? [last.read, time.read] : [time.read, last.read];
      kept[kept.length - 1] = { at: last.at, next: time.next, read: { ...inPart(clock, part), next: time.next } };
    } else kept.push(time);
  }
  return kept;
}

function inPart(clock: TimeRead, part: TimeRead): TimeRead {
  if (clock.certain) return clock;
  const late = part.from >= 12 * 60;
  const shift = (minutes: number) => (late && minutes < 12 * 60 ? minutes + 12 * 60 : !late && minutes >= 13 * 60 ? minutes - 12 * 60 : minutes);
  return { ...clock, from: shift(clock.from), to: shift(clock.to), certain: true };
}

function momentValue(day: Days, time: Pick<TimeRead, 'from' | 'to'>): string {
  const date = isoDate(day.from);
  return time.from === time.to ? `${date}T${isoTime(time.from)}` : `${date}T${isoTime(time.from)}/${date}T${isoTime(time.to)}`;
}

const EVENING = { from: 18 * 60, to: 22 * 60 };

/** A day with a time, or a stretch of time on a day; a day or a time alone where only that is named. */
export const datetimeFinder: Finder = {
  kinds: ['datetime'],
  prepare(_, { region }) {
    return (text, now) => {
      const { words, days, times } = readTimes(text, now, region);
      const left = [...joinTimes(words, times)];
      const moments = days.map(({ at, next, read }): Found => {
        if (isoDate(read.from) !== isoDate(read.to)) return foundAt(words, at, next, dayValue(read));
        const index = left.findIndex((time) => time.at === at || beside(words, next, time.at) || beside(words, time.next, at));
        const tonight = words.slice(at, next).some(({ said }) => said === 'tonight');
        if (index < 0) return foundAt(words, at, next, tonight ? momentValue(read, EVENING) : dayValue(read));
        const [time] = left.splice(index, 1);
        const moment = tonight ? inPart(time!.read, { ...time!.read, from: 18 * 60 }) : time!.read;
        return foundAt(words, Math.min(at, time!.at), Math.max(next, time!.next), momentValue(read, moment));
      });
      const alone = left.map(({ at, next, read }) => foundAt(words, at, next, timeValue(read)));
      const later = fromNow(words, now).map(({ at, next, read }) => foundAt(words, at, next, read.moment));
      return [...moments, ...alone, ...later].sort((a, b) => a.start - b.start);
    };
  },
};

/** Days that no calendar has ("31 February"), so that their figures are not taken for amounts. */
export const noDayFinder: Finder = {
  kinds: [],
  prepare: () => (text) => {
    const words = wordsOfText(text);
    return scanWords(words, (at) => {
      const next = noDayAt(words, at);
      return next > 0 ? { value: '', next } : null;
    });
  },
};
