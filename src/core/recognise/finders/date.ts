import { addMinutes } from 'date-fns';
import type { TokenisedText } from '../../text/tokens.js';
import type { DayRead } from '../../language/dayReader.js';
import type { Language } from '../../language/language.js';
import { isoTime, type TimeRead } from '../../language/timeRead.js';
import { joined, type Word } from '../../language/word.js';
import { exists, isoDate, readLocalTime, type Days } from './dates/calendar.js';
import { readDay } from './dates/days.js';
import type { Finder, FinderSettings, Found } from './finder.js';
import { scanWords, wordsOfText } from './words.js';

/** Words that name a day or a time; indices of the first and after the last. */
interface Reading<Read> {
  at: number;
  next: number;
  meant: Read;
}

/** Everything that one way of reading finds, from left to right. */
function readAll<Read extends { next: number }>(
  words: readonly Word[],
  read: (at: number) => Read | null,
): Reading<Read>[] {
  const readings: Reading<Read>[] = [];
  for (let at = 0; at < words.length;) {
    const found = read(at);
    if (found) {
      readings.push({ at, next: found.next, meant: found });
      at = found.next;
    } else at++;
  }
  return readings;
}

interface TextTimes {
  now: string;
  region: string;
  language: Language;
  words: Word[];
  days: Reading<DayRead>[];
  times: Reading<TimeRead>[];
}

/** What was read from a text last, so that several entities of dates read it once. */
const lastRead = new WeakMap<TokenisedText, TextTimes>();

/** The days that words name. */
function readDays(
  words: readonly Word[],
  now: string,
  { region, naming }: { region: string; naming: Language['days'] },
): Reading<DayRead>[] {
  const today = readLocalTime(now);
  const context = { today, region, readers: naming.readers, known: new Map<number, DayRead | null>() };
  return readAll(words, (at): (DayRead & { none?: true }) | null => {
    const none = naming.noDayAt(words, at);
    if (none > 0) return { from: today, to: today, next: none, none: true };
    const day = readDay(words, at, context);
    const range = naming.readRange(words, at, context);
    return range && range.next > (day?.next ?? 0) ? range : day;
  }).filter(({ meant }) => meant.none === undefined);
}

function readTimes(text: TokenisedText, now: string, { region, language }: FinderSettings): TextTimes {
  const known = lastRead.get(text);
  if (known?.now === now && known.region === region) return known;
  const words = wordsOfText(text, language);
  const { days: naming, times: telling } = language;
  const days = words.some(naming.isOfDay) ? readDays(words, now, { region, naming }) : [];
  const inDay = (at: number) => days.some((day) => !day.meant.withPart && at >= day.at && at < day.next);
  const times = (
    !words.some(telling.isOfTime) ? [] : readAll(words, (at) => (inDay(at) ? null : telling.readTime(words, at)))
  ).filter(({ at, next }) => !days.some((day) => !day.meant.withPart && day.at < next && at < day.next));
  const lasting = times.filter(({ at, meant }) => meant.from === meant.to || !telling.isGrowth(words, at));
  const all: TextTimes = { now, region, language, words, days, times: lasting };
  lastRead.set(text, all);
  return all;
}

function foundAt({ words, language }: TextTimes, at: number, next: number, value: string): Found {
  const first = at < next - 1 && language.times.leadsTo(words[at]!) ? at + 1 : at;
  return { start: words[first]!.start, end: words[next - 1]!.end, value, match: 'computed' };
}

const dayValue = ({ from, to }: Days): string =>
  isoDate(from) === isoDate(to) ? isoDate(from) : `${isoDate(from)}/${isoDate(to)}`;

const timeValue = ({ from, to }: TimeRead): string => (from === to ? isoTime(from) : `${isoTime(from)}/${isoTime(to)}`);

/** Days: an ISO date, or an interval where two days bound it. */
export const dateFinder: Finder = {
  kinds: ['date'],
  prepare(_, settings) {
    return (text, now) => {
      const times = readTimes(text, now, settings);
      return times.days.map(({ at, next, meant }) => {
        const ends = meant.ends?.map((end) => foundAt(times, end.at, end.next, isoDate(end.day)));
        return { ...foundAt(times, at, next, dayValue(meant)), ...(ends && { ends }) };
      });
    };
  },
};

/** Moments that are reckoned from now: "in two hours". */
function fromNow({ words, language, now }: TextTimes): Reading<{ next: number; moment: string }>[] {
  return readAll(words, (at) => {
    const ahead = language.times.readMinutesAhead(words, at);
    const moment = ahead && addMinutes(readLocalTime(now), ahead.value);
    if (!moment || !exists(moment)) return null;
    return {
      next: ahead.next,
      moment: `${isoDate(moment)}T${isoTime(moment.getHours() * 60 + moment.getMinutes())}`,
    };
  });
}

/** Times of day as `HH:MM`, or an interval of two. */
export const timeFinder: Finder = {
  kinds: ['time'],
  prepare(_, settings) {
    return (text, now) => {
      const times = readTimes(text, now, settings);
      return [
        ...joinTimes(times).map(({ at, next, meant }) => {
          const ends = meant.ends?.map((end) => foundAt(times, end.at, end.next, isoTime(end.time)));
          return { ...foundAt(times, at, next, timeValue(meant)), ...(ends && { ends }) };
        }),
        ...fromNow(times).map(({ at, next, meant }) => foundAt(times, at, next, meant.moment.slice(-5))),
      ].sort((a, b) => a.start - b.start);
    };
  },
};

/** Whether only little words stand between two readings. */
function beside({ words, language }: TextTimes, next: number, at: number): boolean {
  if (at < next || at - next > 3) return false;
  for (let place = next; place < at; place++)
    if (!language.times.mayJoin(words[place]!) || !joined(words[place])) return false;
  return joined(words[at]);
}

/** A part of the day beside a time by the clock tells which half of the day is meant: "evening at seven". */
function joinTimes(text: TextTimes): Reading<TimeRead>[] {
  const kept: Reading<TimeRead>[] = [];
  for (const time of text.times) {
    const last = kept.at(-1);
    if (last && last.meant.partOfDay !== time.meant.partOfDay && beside(text, last.next, time.at)) {
      const [part, clock] = last.meant.partOfDay ? [last.meant, time.meant] : [time.meant, last.meant];
      kept[kept.length - 1] = { at: last.at, next: time.next, meant: { ...inPart(clock, part), next: time.next } };
    } else kept.push(time);
  }
  return kept;
}

function inPart(clock: TimeRead, part: { from: number }): TimeRead {
  if (clock.certain) return clock;
  const late = part.from >= 12 * 60;
  const shift = (minutes: number) =>
    late && minutes < 12 * 60 ? minutes + 12 * 60 : !late && minutes >= 13 * 60 ? minutes - 12 * 60 : minutes;
  const ends = clock.ends?.map((end) => ({ ...end, time: shift(end.time) }));
  return { ...clock, from: shift(clock.from), to: shift(clock.to), certain: true, ...(ends && { ends }) };
}

function momentValue(day: Days, time: Pick<TimeRead, 'from' | 'to'>): string {
  const date = isoDate(day.from);
  return time.from === time.to
    ? `${date}T${isoTime(time.from)}`
    : `${date}T${isoTime(time.from)}/${date}T${isoTime(time.to)}`;
}

/** A day with a time, or a stretch of time on a day; a day or a time alone where only that is named. */
export const datetimeFinder: Finder = {
  kinds: ['datetime'],
  prepare(_, settings) {
    const { partNamed } = settings.language.times;
    return (text, now) => {
      const times = readTimes(text, now, settings);
      const left = joinTimes(times);
      const moments = times.days.map(({ at, next, meant }): Found => {
        if (isoDate(meant.from) !== isoDate(meant.to)) return foundAt(times, at, next, dayValue(meant));
        const index = left.findIndex(
          (time) => time.at === at || beside(times, next, time.at) || beside(times, time.next, at),
        );
        const part = times.words
          .slice(at, next)
          .map(partNamed)
          .find((named) => named !== null);
        if (index < 0) return foundAt(times, at, next, part ? momentValue(meant, part) : dayValue(meant));
        const [time] = left.splice(index, 1);
        const moment = part ? inPart(time!.meant, part) : time!.meant;
        return foundAt(times, Math.min(at, time!.at), Math.max(next, time!.next), momentValue(meant, moment));
      });
      const alone = left.map(({ at, next, meant }) => foundAt(times, at, next, timeValue(meant)));
      const later = fromNow(times).map(({ at, next, meant }) => foundAt(times, at, next, meant.moment));
      return [...moments, ...alone, ...later].sort((a, b) => a.start - b.start);
    };
  },
};

/** Days that no calendar has ("31 February"), so that their figures are not taken for amounts. */
export const noDayFinder: Finder = {
  kinds: [],
  prepare:
    (_, { language }) =>
    (text) => {
      const words = wordsOfText(text, language);
      return scanWords(words, (at) => {
        const next = language.days.noDayAt(words, at);
        return next > 0 ? { value: '', next } : null;
      });
    },
};
