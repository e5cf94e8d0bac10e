import { en } from 'chrono-node';
import { addDays, addMonths, addWeeks, endOfMonth, format, getDay, isValid, startOfWeek } from 'date-fns';
import { editDistance } from '../../text/distance.js';
import { mendWords, type MendedText } from '../../text/mend.js';
import type { TokenisedText } from '../../text/tokens.js';
import { COMMON_WORDS } from '../../text/commonWords.js';
import { showValue } from '../value.js';
import type { Finder, Found } from './finder.js';

const WEEKDAYS = ['sunday', 'monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday'];
const MONTHS = [
  'january', 'february', 'march', 'april', 'may', 'june', 'july', 'august', 'september', 'october', 'november', 'december',
];
const LONG_WORDS = [...WEEKDAYS, ...MONTHS.filter((month) => month.length > 5), 'tomorrow', 'fortnight', 'weekend', 'christmas'];
const SHORT_WEEKDAYS: Record<string, string> = {
  mon: 'monday', tue: 'tuesday', tues: 'tuesday', wed: 'wednesday', weds: 'wednesday', thu: 'thursday', thur: 'thursday',
  thurs: 'thursday', fri: 'friday', tomoz: 'tomorrow', tmrw: 'tomorrow', tomo: 'tomorrow',
};

/** Puts misspelt and short names of days and months right, so that the patterns need to know one spelling. */
function mendDateWords({ text, tokens }: TokenisedText): MendedText {
  return mendWords(text, tokens, ({ norm }) => {
    if (norm in SHORT_WEEKDAYS) return SHORT_WEEKDAYS[norm]!;
    if (norm.length < 5 || COMMON_WORDS.has(norm) || LONG_WORDS.includes(norm)) return null;
    const limit = norm.length < 7 ? 1 : 2;
    return LONG_WORDS.find((word) => word[0] === norm[0] && editDistance(norm, word, limit) <= limit) ?? null;
  });
}

/** A local ISO time as a Date whose local parts are those written. */
function readLocalTime(now: string): Date {
  const [date = '', time = '00:00'] = now.split('T');
  const [year, month, day] = date.split('-').map(Number);
  const [hour, minute] = time.split(':').map(Number);
  return new Date(year ?? 1970, (month ?? 1) - 1, day ?? 1, hour ?? 0, minute ?? 0);
}

const isoDate = (date: Date): string => format(date, 'yyyy-MM-dd');

/** The first such weekday after a day (never that day itself). */
function nextWeekday(today: Date, weekday: number): Date {
  return addDays(today, ((weekday - getDay(today) + 6) % 7) + 1);
}

/** That weekday in the calendar week after a day's; weeks begin on Monday. */
function weekdayOfNextWeek(today: Date, weekday: number): Date {
  return addDays(addWeeks(startOfWeek(today, { weekStartsOn: 1 }), 1), (weekday + 6) % 7);
}

/** The day of a month, this month or the next that has it, not before today. */
function dayAhead(today: Date, day: number): Date | null {
  for (let month = 0; month < 12; month++) {
    const date = new Date(today.getFullYear(), today.getMonth() + month, day);
    if (date.getDate() === day && isoDate(date) >= isoDate(today)) return date;
  }
  return null;
}

interface DatePattern {
  pattern: RegExp;
  /** @returns an ISO date or interval, or `null` if the words name no day */
  read: (groups: Record<string, string | undefined>, today: Date) => string | null;
}

const WEEKDAY = `(?<weekday>${WEEKDAYS.join('|')})`;
const COUNT = '(?<count>a|an|one|two|three|four|five|six|seven|eight|nine|ten|\\d{1,3})';
const COUNT_WORDS = ['', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'];

function readCount(word: string): number {
  if (word === 'a' || word === 'an') return 1;
  const index = COUNT_WORDS.indexOf(word);
  return index > 0 ? index : Number(word);
}

const weekdayNumber = (name: string | undefined): number => WEEKDAYS.indexOf(name ?? '');

/** Ways of naming a day that the date library does not read, or reads otherwise than our users mean. */
const PATTERNS: DatePattern[] = (
  [
  {
    pattern: new RegExp(`(?:${COUNT} weeks?|a (?<fortnight>fortnight)) (?:on |from |after |this )?(?:${WEEKDAY}|(?<near>today|tomorrow))`),
    read: ({ count, fortnight, weekday, near }, today) => {
      const base = near === 'today' ? today : near === 'tomorrow' ? addDays(today, 1) : nextWeekday(today, weekdayNumber(weekday));
      return isoDate(addWeeks(base, fortnight ? 2 : readCount(count ?? '')));
    },
  },
  {
    pattern: new RegExp(`(?:${WEEKDAY}|(?<near>today|tomorrow)) (?<span>week|fortnight)(?!\\w)`),
    read: ({ weekday, near, span }, today) => {
      const base = near === 'today' ? today : near === 'tomorrow' ? addDays(today, 1) : nextWeekday(today, weekdayNumber(weekday));
      return isoDate(addWeeks(base, span === 'fortnight' ? 2 : 1));
    },
  },
  { pattern: /(?:the )?day after tomorrow/, read: (_, today) => isoDate(addDays(today, 2)) },
  {
    pattern: new RegExp(`in ${COUNT} (?<unit>day|week|month|fortnight)s?(?:'s?)?(?: time)?`),
    read: ({ count, unit }, today) => {
      const number = readCount(count ?? '');
      if (unit === 'month') return isoDate(addMonths(today, number));
      return isoDate(addDays(today, number * (unit === 'day' ? 1 : unit === 'week' ? 7 : 14)));
    },
  },
  {
    pattern: new RegExp(`next ${WEEKDAY}|${WEEKDAY.replace('weekday', 'other')} (?:of )?next week`),
    read: ({ weekday, other }, today) => isoDate(weekdayOfNextWeek(today, weekdayNumber(weekday ?? other))),
  },
  {
    pattern: new RegExp(`(?:(?:this|on|coming|by|for|the) )?(?:this coming )?${WEEKDAY}(?:,? (?:the )?(?<day>\\d{1,2})(?:st|nd|rd|th))?`),
    read: ({ weekday, day }, today) => {
      if (day === undefined) return isoDate(nextWeekday(today, weekdayNumber(weekday)));
      const date = dayAhead(today, Number(day));
      return date && isoDate(date);
    },
  },
  {
    pattern: /(?:this|the) weekend/,
    read: (_, today) => {
      const saturday = getDay(today) === 6 ? today : getDay(today) === 0 ? addDays(today, -1) : nextWeekday(today, 6);
      return `${isoDate(saturday)}/${isoDate(addDays(saturday, 1))}`;
    },
  },
  {
    pattern: /(?:the )?end of (?<which>this|next|the) month/,
    read: ({ which }, today) => isoDate(endOfMonth(which === 'next' ? addMonths(today, 1) : today)),
  },
  {
    pattern: /the (?<day>\d{1,2})(?:st|nd|rd|th)?(?! ?(?:of )?(?:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec))(?!\w)/,
    read: ({ day }, today) => {
      const date = dayAhead(today, Number(day));
      return date && isoDate(date);
    },
  },
  {
    pattern: /(?<day>\d{1,2})(?:st|nd|rd|th)(?! ?(?:of )?(?:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec))(?!\w)/,
    read: ({ day }, today) => {
      const date = dayAhead(today, Number(day));
      return date && isoDate(date);
    },
  },
] satisfies DatePattern[]
).map(({ pattern, read }) => ({ pattern: new RegExp(`(?<![\\w-])(?:${pattern.source})(?!\\w)`, 'g'), read }));

/** Little words before a date that are not part of it. */
const LEAD = /^(?:on|by|for|at|until|till|before|from) /;

function ownDates(mended: string, today: Date): Found[] {
  const lower = mended.toLowerCase();
  return PATTERNS.flatMap(({ pattern, read }) =>
    [...lower.matchAll(pattern)].flatMap((match): Found[] => {
      const value = read(match.groups ?? {}, today);
      return value === null ? [] : [{ start: match.index, end: match.index + match[0].length, value, match: 'computed' }];
    }),
  );
}

/** Words of which the library must have read at least one; it also takes "a second" or "the week" for dates. */
const NAMES_A_DAY = new RegExp(
  `\\b(?:${[...WEEKDAYS, ...MONTHS].join('|')}|today|tonight|tomorrow|yesterday|jan|feb|mar|apr|jun|jul|aug|sept?|oct|nov|dec|christmas|(?:next|in|\\d+) \\w* ?(?:days?|weeks?|months?))\\b|\\d[/.-]\\d`,
  'i',
);

/** What the library read: the day where one was named, the time where one was. */
interface LibraryDate {
  start: number;
  end: number;
  date: string | null;
  endDate: string | null;
  time: string | null;
}

function libraryDates(mended: string, now: Date, region: string): LibraryDate[] {
  const reader = region === 'US' ? en.casual : en.GB;
  const results = reader.parse(mended, now, { forwardDate: true }).filter((result) => NAMES_A_DAY.test(result.text));
  return results.map((result) => {
    const day = result.start.isCertain('day') || result.start.isCertain('weekday');
    const date = result.start.date();
    const endDate = result.end?.date();
    return {
      start: result.index,
      end: result.index + result.text.length,
      date: day && isValid(date) ? isoDate(date) : null,
      endDate: endDate && result.end?.isCertain('day') && isValid(endDate) ? isoDate(endDate) : null,
      time: result.start.isCertain('hour') ? format(date, 'HH:mm') : null,
    };
  });
}

/** Of finds that overlap, the longest; of equals, the first given. */
function longest(found: Found[]): Found[] {
  const kept: Found[] = [];
  for (const candidate of [...found].sort((a, b) => b.end - b.start - (a.end - a.start))) {
    if (kept.every((other) => candidate.end <= other.start || candidate.start >= other.end)) kept.push(candidate);
  }
  return kept.sort((a, b) => a.start - b.start);
}

const LONGEST_READ = 2000;

/** What the library takes along after a date: a part of the day, which is a time, or a comma. */
const TRAIL = /(?: (?:in the )?(?:morning|afternoon|evening|night))?[\s,.;]*$/i;

/** Takes little words off the front and parts of the day off the end, and takes in the article of an ordinal ("the 22nd of August"). */
function trimLead(found: Found, mended: string): Found {
  const lead = LEAD.exec(mended.slice(found.start, found.end).toLowerCase())?.[0].length ?? 0;
  const start = found.start + lead;
  const article = /the $/i.test(mended.slice(0, start)) && /^(?:\d{1,2}(?:st|nd|rd|th)|\w+ of) /i.test(mended.slice(start, found.end));
  const trail = TRAIL.exec(mended.slice(start, found.end))?.[0].length ?? 0;
  return { ...found, start: article ? start - 4 : start, end: found.end - trail };
}

interface DatesRead {
  now: string;
  region: string;
  mended: MendedText;
  found: Found[];
}

/** What was read from a text last, so that several entities of dates read it once. */
const lastRead = new WeakMap<TokenisedText, DatesRead>();

function readDates(text: TokenisedText, now: string, region: string): DatesRead {
  const known = lastRead.get(text);
  if (known?.now === now && known.region === region) return known;
  const mended = mendDateWords(text);
  const instant = readLocalTime(now);
  const library = text.text.length > LONGEST_READ || !NAMES_A_DAY.test(mended.text) ? [] : libraryDates(mended.text, instant, region);
  const fromLibrary = library.flatMap((result): Found[] => {
    if (result.date === null) return [];
    const value = result.endDate && result.endDate !== result.date ? `${result.date}/${result.endDate}` : result.date;
    return [{ start: result.start, end: result.end, value, match: 'computed' }];
  });
  const all = [...ownDates(mended.text, instant), ...fromLibrary].map((item) => trimLead(item, mended.text));
  const read: DatesRead = { now, region, mended, found: longest(all) };
  lastRead.set(text, read);
  return read;
}

function back(mended: MendedText, found: Found[]): Found[] {
  return found.map((item) => ({ ...item, start: mended.original(item.start), end: mended.original(item.end) }));
}

/** Days: an ISO date, or an interval where two days bound it. */
export const dateFinder: Finder = {
  kinds: ['date'],
  prepare(_, { region }) {
    return (text, now) => {
      const { mended, found } = readDates(text, now, region);
      return back(mended, found);
    };
  },
};

const HOURS = ['twelve', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven'];
const HOUR = `(?<hour>${HOURS.slice(1).join('|')}|twelve|\\d{1,2})`;
const HALF_DAY = "(?: ?(?<half>a\\.?m\\.?|p\\.?m\\.?)|,? (?:in the |at )(?<part>morning|afternoon|evening|night))?";

const TIME_PATTERNS = (
  [
  { pattern: `half(?: past)? ${HOUR}${HALF_DAY}`, minutes: () => 30 },
  { pattern: `quarter past ${HOUR}${HALF_DAY}`, minutes: () => 15 },
  { pattern: `quarter to ${HOUR}${HALF_DAY}`, minutes: () => -15 },
  { pattern: `(?<few>five|ten|twenty|\\d{1,2})(?: minutes)? past ${HOUR}${HALF_DAY}`, minutes: ({ few }) => fewMinutes(few) },
  { pattern: `(?<few>five|ten|twenty|\\d{1,2})(?: minutes)? to ${HOUR}${HALF_DAY}`, minutes: ({ few }) => -fewMinutes(few) },
  { pattern: `(?<hour>\\d{1,2})[:.](?<minute>[0-5]\\d)(?!\\d)${HALF_DAY}`, minutes: ({ minute }) => Number(minute) },
  { pattern: `${HOUR}(?: o'?clock)${HALF_DAY}`, minutes: () => 0 },
  { pattern: `${HOUR}(?: ?(?<half>a\\.?m\\.?|p\\.?m\\.?)|,? (?:in the |at )(?<part>morning|afternoon|evening|night))`, minutes: () => 0 },
  { pattern: `(?:at|around|about|by) ${HOUR}(?! ?(?:past|to|%|£|\\$|[/.-]\\d|\\d))`, minutes: () => 0 },
] as { pattern: string; minutes: (groups: Record<string, string | undefined>) => number }[]
).map(({ pattern, minutes }) => ({ pattern: new RegExp(`(?<![\\w£$.,:-])(?:${pattern})(?!\\w)`, 'g'), minutes }));

const fewMinutes = (word: string | undefined): number =>
  ({ five: 5, ten: 10, twenty: 20 })[word ?? ''] ?? Number(word);

/** Hours said without a half of the day are taken from the working day: eight in the morning until seven at night. */
function readHour(word: string, half: string | undefined, part: string | undefined): number | null {
  const named = HOURS.indexOf(word);
  const hour = named >= 0 ? (named === 0 ? 12 : named) : Number(word);
  if (hour > 24) return null;
  if (half?.startsWith('a') || part === 'morning') return hour % 12;
  if (half?.startsWith('p') || part === 'afternoon' || part === 'evening' || part === 'night') return hour < 12 ? hour + 12 : hour;
  return hour >= 1 && hour <= 7 && !word.startsWith('0') ? hour + 12 : hour;
}

function findTimes(text: string): Found[] {
  const lower = text.toLowerCase();
  const found = TIME_PATTERNS.flatMap(({ pattern, minutes }) =>
    [...lower.matchAll(pattern)].flatMap((match): Found[] => {
      const groups = match.groups ?? {};
      const hour = readHour(groups['hour'] ?? '', groups['half'], groups['part']);
      const minute = minutes(groups);
      if (hour === null || Number.isNaN(minute)) return [];
      const total = (hour * 60 + minute + 1440) % 1440;
      const value = `${String(Math.floor(total / 60)).padStart(2, '0')}:${String(total % 60).padStart(2, '0')}`;
      const lead = /^(?:at|around|about|by) /.exec(match[0])?.[0].length ?? 0;
      return [{ start: match.index + lead, end: match.index + match[0].length, value, match: 'computed' }];
    }),
  );
  for (const match of lower.matchAll(/(?<!\w)(noon|midday|midnight)(?!\w)/g)) {
    const value = match[1] === 'midnight' ? '00:00' : '12:00';
    found.push({ start: match.index, end: match.index + match[0].length, value, match: 'exact' });
  }
  return longest(found);
}

/** Times of day as `HH:MM`. */
export const timeFinder: Finder = {
  kinds: ['time'],
  prepare() {
    return ({ text }) => findTimes(text);
  },
};

/** A day with a time; a day alone where no time is named. */
export const datetimeFinder: Finder = {
  kinds: ['datetime'],
  prepare(_, { region }) {
    return (text, now) => {
      const { mended, found } = readDates(text, now, region);
      const times = findTimes(text.text);
      return back(mended, found).map((day) => {
        const time = times.find((item) => item.start >= day.end && item.start - day.end <= 6) ?? times.find((item) => day.start >= item.end && day.start - item.end <= 6);
        if (!time) return day;
        return { ...day, start: Math.min(day.start, time.start), end: Math.max(day.end, time.end), value: `${showValue(day.value)}T${showValue(time.value)}` };
      });
    };
  },
};
