import { UTCDate } from '@date-fns/utc';
import { addDays, differenceInCalendarDays, eachDayOfInterval, isWeekend } from 'date-fns';
import { readCount, readOrdinal } from '../counts.js';
import { joined, type Word } from '../words.js';
import {
  addUnits,
  dayOf,
  dayOfMonthAhead,
  dayOfYearAhead,
  exists,
  isoDate,
  lastDayOf,
  lastWeekday,
  MONTHS,
  monthAhead,
  monthOf,
  NAMED_DAYS,
  namedDayAhead,
  nextWeekday,
  nthWeekday,
  WEEKDAYS,
  weekdayInWeek,
  weekendOf,
  weekOf,
  type Days,
} from './calendar.js';

/** What days are reckoned from, and how figures are ordered. */
export interface DayContext {
  today: Date;
  /** ISO 3166 country; in the United States the month comes first. */
  region: string;
  /** How many days this one is reckoned from, one from the other ("the day after the day before Easter"). */
  depth?: number;
  /** What was read so far of these words from this day on, so that no place is read twice. */
  known?: Map<number, DayRead | null>;
}

/** A day or a stretch of days that words name. */
export interface DayRead extends Days {
  /** Index after the last word. */
  next: number;
  /** Of a stretch between two named days, the words of each: index of the first and after the last. */
  ends?: readonly { at: number; next: number; day: Date }[];
  /** Whether the words name a part of the day as well ("this evening"). */
  withPart?: true;
}

/** Reads one way of naming a day from the words that begin at a place; `null` where they do not. */
type DayReader = (words: readonly Word[], at: number, context: DayContext) => DayRead | null;

type Unit = 'day' | 'week' | 'fortnight' | 'month' | 'year';

const said = (words: readonly Word[], at: number): string => words[at]?.said ?? '';
const one = (day: Date | null, next: number): DayRead | null => (day ? { from: day, to: day, next } : null);
const stretch = (days: Days, next: number): DayRead => ({ from: days.from, to: days.to, next });

/** Whether the words from a place are these, none of them parted from the one before by more than a comma. */
function saidAll(words: readonly Word[], at: number, phrase: string): boolean {
  if (!phrase.startsWith(said(words, at))) return false;
  return phrase
    .split(' ')
    .every((word, index) => said(words, at + index) === word && (index === 0 || joined(words[at + index])));
}

const skip = (words: readonly Word[], at: number, pattern: RegExp): number =>
  pattern.test(said(words, at)) ? at + 1 : at;
const skipThe = (words: readonly Word[], at: number): number => skip(words, at, /^the$/);

/** Short names of days that are words of their own. */
const SHORT_DAYS: ReadonlyMap<string, number> = new Map([
  ['sat', 6],
  ['sun', 0],
]);

function weekdayAt(words: readonly Word[], at: number): number {
  const word = said(words, at);
  const short = SHORT_DAYS.get(word);
  if (short !== undefined) {
    const before = said(words, at - 1);
    const certain =
      /^(?:on|this|next|by|for|last|coming|every|until|till|or|and|from|a)$/.test(before) ||
      /^(?:at|am|pm|morning|afternoon|evening|week|\d)/.test(said(words, at + 1)) ||
      words.length === 1;
    return certain ? short : -1;
  }
  return WEEKDAYS.indexOf(word);
}

const monthAt = (words: readonly Word[], at: number): number =>
  said(words, at) === 'mar' ? 2 : MONTHS.indexOf(said(words, at));

function unitAt(words: readonly Word[], at: number): Unit | null {
  const match = /^(day|week|fortnight|month|year)s?$/.exec(said(words, at));
  return match ? (match[1] as Unit) : null;
}

/** A day of the month: "3", "3rd", "third", "twenty-first". */
function monthDay(words: readonly Word[], at: number): { value: number; next: number; ordinal: boolean } | null {
  const ordinal = readOrdinal(words, at);
  if (ordinal && ordinal.value >= 1 && ordinal.value <= 31) return { ...ordinal, ordinal: true };
  const word = words[at];
  if (!word || !/^\d{1,2}$/.test(word.said) || Number(word.said) < 1 || Number(word.said) > 31) return null;
  const after = words[at + 1];
  // A figure glued to letters is a code or a time.
  return after?.glued && /\p{L}/u.test(after.said) ? null : { value: Number(word.said), next: at + 1, ordinal: false };
}

/** A year after a date: "2026", "'26". */
function yearAt(words: readonly Word[], at: number): number | null {
  const word = words[at];
  if (!word || !/^(?:20\d\d|19\d\d)$/.test(word.said))
    return word && /['’]$/.test(word.gap) && /^\d\d$/.test(word.said) ? 2000 + Number(word.said) : null;
  return joined(word) ? Number(word.said) : null;
}

function inYear(words: readonly Word[], at: number, month: number, day: number, { today }: DayContext): DayRead | null {
  const year = yearAt(words, at);
  if (year !== null) return one(dayOf(year, month, day), at + 1);
  if (/^(?:next|this) year$/.test(`${said(words, at)} ${said(words, at + 1)}`))
    return one(dayOf(today.getFullYear() + (said(words, at) === 'next' ? 1 : 0), month, day), at + 2);
  return one(dayOfYearAhead(today, month, day), at);
}

const NEAR = new Map([
  ['today', 0],
  ['tonight', 0],
  ['tomorrow', 1],
  ['yesterday', -1],
]);

const nearDay: DayReader = (words, at, { today }) => {
  const day = NEAR.get(said(words, at));
  if (day !== undefined) return one(addDays(today, day), at + 1);
  if (saidAll(words, at, 'last night')) return one(addDays(today, -1), at + 2);
  if (said(words, at) === '2' && words[at + 1]?.glued && /^mor{1,2}ow?$/.test(said(words, at + 1)))
    return one(addDays(today, 1), at + 2);
  if (said(words, at) === 'this' && /^(?:morning|afternoon|evening|lunchtime)$/.test(said(words, at + 1)))
    return { from: today, to: today, next: at + 2, withPart: true };
  const from = skipThe(words, at);
  if (saidAll(words, from, 'day after tomorrow')) return one(addDays(today, 2), from + 3);
  if (saidAll(words, from, 'day before yesterday')) return one(addDays(today, -2), from + 3);
  if (saidAll(words, from, 'next day') && from > at) return one(addDays(today, 1), from + 2);
  return null;
};

/** "a week on Thursday", "three weeks tomorrow", "Thursday week", "a fortnight today", "a week from Friday". */
const weeksOn: DayReader = (words, at, context) => {
  const base = (place: number): DayRead | null => {
    const day = NEAR.get(said(words, place));
    if (day !== undefined) return one(addDays(context.today, day), place + 1);
    const weekday = weekdayAt(words, place);
    return weekday < 0 ? null : one(nextWeekday(context.today, weekday), place + 1);
  };
  const first = base(at);
  if (first && joined(words[first.next])) {
    const unit = said(words, first.next);
    if (unit === 'week' || unit === 'fortnight') return one(addUnits(first.from, 1, unit), first.next + 1);
  }
  const count = weekCount(words, at);
  if (!count) return null;
  const link = skip(words, count.next, /^(?:on|from|after|this)$/);
  const day = base(skip(words, link, /^(?:this|next|coming)$/));
  return day && one(addUnits(day.from, count.value, count.unit), day.next);
};

/** "a week", "two weeks", "a fortnight", and "week" alone before a day. */
function weekCount(words: readonly Word[], at: number): { value: number; unit: Unit; next: number } | null {
  if (said(words, at) === 'week' || said(words, at) === 'fortnight')
    return { value: 1, unit: unitAt(words, at)!, next: at + 1 };
  const article = /^(?:an?|one)$/.test(said(words, at));
  const count = article ? { value: 1, next: at + 1 } : readCount(words, at);
  const unit = count && unitAt(words, count.next);
  return count && unit && unit !== 'day' && Number.isInteger(count.value)
    ? { value: count.value, unit, next: count.next + 1 }
    : null;
}

/** "next Friday", "this coming Friday", "Friday next week", "last Friday", "the Friday after next", "Friday the 13th". */
const weekday: DayReader = (words, at, context) => {
  const { today } = context;
  const from = skipThe(words, at);
  const which = said(words, from);
  const named = weekdayAt(words, from);
  if (named >= 0) return weekdayAlone(words, from, named, context);
  const after = /^(?:next|this|last|coming|following|past)$/.test(which)
    ? skip(words, from + 1, /^(?:coming|past)$/)
    : -1;
  if (after < 0) return null;
  if (which === 'next' && said(words, after) === 'week') {
    const inWeek = skip(words, after + 1, /^on$/);
    const day = weekdayAt(words, inWeek);
    return day < 0 || !joined(words[inWeek]) ? null : one(weekdayInWeek(today, 1, day), inWeek + 1);
  }
  const day = weekdayAt(words, after);
  if (day < 0) return null;
  if (which === 'last' || which === 'past') return one(lastWeekday(today, day), after + 1);
  if (which === 'next') return one(weekdayInWeek(today, 1, day), after + 1);
  return weekdayAlone(words, after, day, context);
};

function weekdayAlone(words: readonly Word[], at: number, day: number, context: DayContext): DayRead | null {
  const { today } = context;
  const next = at + 1;
  const link = skip(words, next, /^(?:of|in)$/);
  if (saidAll(words, link, 'next week')) return one(weekdayInWeek(today, 1, day), link + 2);
  if (saidAll(words, link, 'this week')) return one(weekdayInWeek(today, 0, day), link + 2);
  if (saidAll(words, next, 'after next')) return one(weekdayInWeek(today, 2, day), next + 2);
  if (saidAll(words, next, 'week after next')) return one(weekdayInWeek(today, 2, day), next + 3);
  if (
    saidAll(words, next, 'next') &&
    !unitAt(words, next + 1) &&
    weekdayAt(words, next + 1) < 0 &&
    monthAt(words, next + 1) < 0
  )
    return one(weekdayInWeek(today, 1, day), next + 1);
  if (saidAll(words, next, 'coming')) return one(nextWeekday(today, day), next + 1);
  if (saidAll(words, next, 'gone') || saidAll(words, next, 'last')) return one(lastWeekday(today, day), next + 1);
  if (joined(words[next])) {
    const figure = skipThe(words, next);
    const dated = dayAndMonth(words, figure, context) ?? monthAndDay(words, figure, context);
    if (dated) return dated;
    const number = monthDay(words, figure);
    if (number?.ordinal) return one(dayOfMonthAhead(today, number.value), number.next);
  }
  return one(nextWeekday(today, day), next);
}

/** "13 March", "the 3rd of May 2026". */
const dayAndMonth: DayReader = (words, at, context) => {
  const day = monthDay(words, skipThe(words, at));
  if (!day) return null;
  const month = monthAt(words, skip(words, day.next, /^of$/));
  const place = skip(words, day.next, /^of$/);
  return month < 0 || !joined(words[place])
    ? monthOfDay(words, day, context)
    : inYear(words, place + 1, month, day.value, context);
};

/** "the 9th of next month", "the 3rd of this month". */
function monthOfDay(
  words: readonly Word[],
  day: { value: number; next: number },
  { today }: DayContext,
): DayRead | null {
  if (said(words, day.next) !== 'of') return null;
  if (saidAll(words, day.next + 1, 'the month')) return one(dayOfMonthAhead(today, day.value), day.next + 3);
  const ahead = saidAll(words, day.next + 1, 'next month') ? 1 : saidAll(words, day.next + 1, 'this month') ? 0 : -1;
  if (ahead < 0) return null;
  return one(
    dayOf(today.getFullYear(), today.getMonth() + ahead, day.value) ??
      new UTCDate(today.getFullYear(), today.getMonth() + ahead, day.value),
    day.next + 3,
  );
}

/** "March 13", "May the 3rd, 2026". */
const monthAndDay: DayReader = (words, at, context) => {
  const month = monthAt(words, at);
  if (month < 0) return null;
  const day = joined(words[at + 1]) ? monthDay(words, skipThe(words, at + 1)) : null;
  return day && inYear(words, day.next, month, day.value, context);
};

const AFTER_ORDINAL =
  /^(?:one|time|of|order|item|thing|floor|class|person|two|three|line|option|name|party|attempt|try|day|week|quarter|half|page|size|street|avenue|road|bin|email|number|part|choice)$/;
const BEFORE_ORDINAL = /^(?:on|by|for|until|till|to|from|before|after|and|between|or|is|the|since)$/;

/** "the 3rd", "the third", "the 3" after a little word; looks forward. */
const dayOfMonth: DayReader = (words, at, { today }) => {
  const from = skipThe(words, at);
  const day = monthDay(words, from);
  if (!day) return null;
  const spelt = day.ordinal && !/^\d/.test(said(words, from));
  const after = said(words, day.next);
  if (from === at && (!day.ordinal || spelt)) return null;
  if (words[day.next] && joined(words[day.next]) && AFTER_ORDINAL.test(after)) return null;
  if (spelt && !BEFORE_ORDINAL.test(said(words, at - 1)) && at > 0) return null;
  if (
    !day.ordinal &&
    (!/^(?:on|by|for|until|till|from|before|after|to|and)$/.test(said(words, at - 1)) ||
      (words[day.next] &&
        joined(words[day.next]) &&
        /^\p{L}/u.test(after) &&
        !/^(?:to|until|till|and|at|please|or|in|if|would|is)$/.test(after)))
  )
    return null;
  return one(dayOfMonthAhead(today, day.value), day.next);
};

const NTH = /^(?:first|1st|last|second|third|fourth|fifth|2nd|3rd|4th|5th)$/;

/** "the first Monday in May", "the last Friday of the month", "the second Tuesday of next month". */
const nthOfMonth: DayReader = (words, at, context) => {
  const from = skipThe(words, at);
  const last = said(words, from) === 'last';
  const nth = last
    ? { value: -1, next: from + 1 }
    : NTH.test(said(words, from)) || /^\d$/.test(said(words, from))
      ? readOrdinal(words, from)
      : null;
  if (!nth) return null;
  if (/^(?:working|business)$/.test(said(words, nth.next)) && /^day (?:in|of)$/.test(pair(words, nth.next + 1))) {
    const month = namedMonth(words, nth.next + 3, context);
    return month && one(workingDay(month, nth.value), month.next);
  }
  const day = weekdayAt(words, nth.next);
  const whole = said(words, nth.next) === 'day';
  const weeks = /^(?:week|weekend)$/.test(said(words, nth.next));
  if (day < 0 && !whole && !weeks) return null;
  if (!/^(?:in|of)$/.test(said(words, nth.next + 1))) return null;
  const month = namedMonth(words, nth.next + 2, context);
  if (!month) return null;
  if (whole)
    return one(last ? month.to : dayOf(month.from.getFullYear(), month.from.getMonth(), nth.value), month.next);
  if (weeks) return nthWeek(said(words, nth.next), month, nth.value);
  const found = nthWeekday(month, nth.value, day);
  if (!found) return null;
  const gone = isoDate(found) < isoDate(context.today);
  const later = month.turn && gone ? nthWeekday(month.turn, nth.value, day) : found;
  return one(later, month.next);
};

const pair = (words: readonly Word[], at: number): string => `${said(words, at)} ${said(words, at + 1)}`;

/** The nth of the days from Monday to Friday; -1 for the last. */
function workingDay({ from, to }: Days, nth: number): Date | null {
  const days = eachDayOfInterval({ start: from, end: to }).filter((day) => !isWeekend(day));
  return days.at(nth < 0 ? nth : nth - 1) ?? null;
}

/** The first week of a month begins on its first day; a weekend is of the month that its Saturday is in. */
function nthWeek(unit: string, month: DayRead, nth: number): DayRead | null {
  if (unit === 'weekend') {
    const saturday = nthWeekday(month, nth, 6);
    return saturday && stretch({ from: saturday, to: addDays(saturday, 1) }, month.next);
  }
  const from = nth < 0 ? addDays(month.to, -6) : addDays(month.from, 7 * (nth - 1));
  return nth > 4 ? null : stretch({ from, to: addDays(from, 6) }, month.next);
}

/** "May", "May 2027", "the month", "next month". `turn` is the same month of the next year or the next month. */
function namedMonth(words: readonly Word[], at: number, { today }: DayContext): (DayRead & { turn?: Days }) | null {
  const month = monthAt(words, at);
  if (month >= 0) {
    const year = yearAt(words, at + 1);
    if (year !== null) return stretch(monthOf(year, month), at + 2);
    const ahead = monthAhead(today, month);
    return { ...stretch(ahead, at + 1), turn: monthOf(ahead.from.getFullYear() + 1, month) };
  }
  const thisMonth = monthOf(today.getFullYear(), today.getMonth());
  const nextMonth = monthOf(today.getFullYear(), today.getMonth() + 1);
  if (saidAll(words, at, 'next month')) return stretch(nextMonth, at + 2);
  if (saidAll(words, at, 'this month')) return stretch(thisMonth, at + 2);
  if (saidAll(words, at, 'the month')) return { ...stretch(thisMonth, at + 2), turn: nextMonth };
  if (saidAll(words, at, 'the following month')) return stretch(nextMonth, at + 3);
  return null;
}

/** "in three days", "in a week's time", "two weeks from now", "10 days ago", "a month today". */
const counted: DayReader = (words, at, { today }) => {
  const within = /^(?:in|within)$/.test(said(words, at));
  const from = within ? at + 1 : at;
  const about = skip(words, from, /^(?:about|around|roughly|another)$/);
  const article = /^an?$/.test(said(words, about)) && unitAt(words, about + 1) !== null;
  const count = article ? { value: 1, next: about + 1 } : readCount(words, about);
  const unit = count && unitAt(words, count.next);
  if (!count || !unit || !Number.isInteger(count.value) || count.value > 5000) return null;
  const after = count.next + 1;
  const day = (sign: 1 | -1) => addUnits(today, sign * count.value, unit);
  if (said(words, after) === 'ago') return one(day(-1), after + 1);
  if (said(words, after) === 'time') return one(day(1), after + 1);
  if (saidAll(words, after, 'from now') || saidAll(words, after, 'from today')) return one(day(1), after + 2);
  if (saidAll(words, after, 'today')) return one(day(1), after + 1);
  if (said(words, at) === 'within') return stretch({ from: today, to: day(1) }, after);
  return within ? one(day(1), after) : null;
};

/** "the day after Christmas", "two days before the 3rd", "a week after Easter". */
const besideDay: DayReader = (words, at, context) => {
  const from = skipThe(words, at);
  const article = /^(?:an?|the)$/.test(said(words, at)) || said(words, at) === 'day';
  const count = article ? { value: 1, next: said(words, at) === 'day' ? at : at + 1 } : readCount(words, from);
  const unit = count && unitAt(words, count.next);
  if (!count || !unit || !Number.isInteger(count.value)) return null;
  const link = said(words, count.next + 1);
  if (link !== 'after' && link !== 'before') return null;
  const day = readDay(words, count.next + 2, context);
  if (day && said(words, at) === 'the' && unit === 'week')
    return stretch(weekOf(day.from, link === 'after' ? 1 : -1), day.next);
  return day && one(addUnits(day.from, (link === 'after' ? 1 : -1) * count.value, unit), day.next);
};

/** "the Monday after Easter", "the last Saturday before Christmas". */
const weekdayBeside: DayReader = (words, at, context) => {
  const from = skip(words, skipThe(words, at), /^(?:first|last|next)$/);
  const day = weekdayAt(words, from);
  const link = said(words, from + 1);
  if (day < 0 || (link !== 'after' && link !== 'before')) return null;
  const other = readDay(words, from + 2, context);
  if (!other) return null;
  return one(link === 'after' ? nextWeekday(other.to, day) : lastWeekday(other.from, day), other.next);
};

const BANK_HOLIDAYS = [
  'good friday',
  'easter monday',
  'early may bank holiday',
  'spring bank holiday',
  'august bank holiday',
];

/** "the bank holiday", "bank holiday Monday", "the bank holiday weekend": the next there is. */
const bankHoliday: DayReader = (words, at, { today, region }) => {
  const from = skip(words, skipThe(words, at), /^(?:next|this|coming)$/);
  if (!saidAll(words, from, 'bank holiday')) return null;
  const monday = said(words, from + 2) === 'monday';
  const weekend = said(words, from + 2) === 'weekend';
  const days = BANK_HOLIDAYS.slice(monday || weekend ? 1 : 0).flatMap(
    (name) => namedDayAhead(today, name, region) ?? [],
  );
  const [first] = days.sort((a, b) => a.getTime() - b.getTime());
  if (!first) return null;
  return weekend ? stretch({ from: addDays(first, -2), to: first }, from + 3) : one(first, from + (monday ? 3 : 2));
};

const SEASONS: ReadonlyMap<string, number> = new Map([
  ['spring', 2],
  ['summer', 5],
  ['autumn', 8],
  ['fall', 8],
  ['winter', 11],
]);

/** "this summer", "next spring", "in the autumn": three months. */
const season: DayReader = (words, at, { today }) => {
  const which = said(words, at);
  const month = SEASONS.get(said(words, at + 1));
  if (month === undefined || !/^(?:this|next|the|in)$/.test(which) || (which === 'the' && said(words, at - 1) !== 'in'))
    return null;
  if (said(words, at + 1) === 'fall' && which === 'the') return null;
  const year =
    today.getFullYear() + (today.getMonth() > month + 2 || (which === 'next' && today.getMonth() >= month) ? 1 : 0);
  return stretch({ from: new UTCDate(year, month, 1), to: monthOf(year, month + 2).to }, at + 2);
};

const FIRST_OF_NAMES: ReadonlySet<string> = new Set([...NAMED_DAYS.keys()].map((name) => name.split(' ')[0]!));

const namedDay: DayReader = (words, at, context) => {
  const from = skip(words, skipThe(words, at), /^(?:this|next|coming)$/);
  if (!FIRST_OF_NAMES.has(said(words, from))) return null;
  for (let length = 4; length >= 1; length--) {
    const name = words.slice(from, from + length);
    if (name.length < length || name.slice(1).some((word) => !joined(word))) continue;
    const phrase = name.map((word) => word.said).join(' ');
    if (!NAMED_DAYS.has(phrase)) continue;
    const year = yearAt(words, from + length);
    const day = namedDayAhead(year === null ? context.today : new UTCDate(year, 0, 1), phrase, context.region);
    return one(day, from + length + (year === null ? 0 : 1));
  }
  return null;
};

/** "this week", "next weekend", "next month", "in May", "the week after next", "the week of the 9th". */
const period: DayReader = (words, at, context) => {
  const { today } = context;
  const from = skipThe(words, at);
  const which = said(words, from);
  const what = said(words, from + 1);
  const ahead =
    which === 'next' || which === 'following'
      ? 1
      : which === 'this' || which === 'coming'
        ? 0
        : which === 'last'
          ? -1
          : null;
  if (ahead !== null) {
    const place = which === 'this' && what === 'coming' ? from + 2 : from + 1;
    const unit = said(words, place);
    if (unit === 'week') return stretch(weekOf(today, ahead), place + 1);
    if (unit === 'weekend') return stretch(weekendOf(today, ahead), place + 1);
    if (unit === 'month') return stretch(monthOf(today.getFullYear(), today.getMonth() + ahead), place + 1);
    if (unit === 'year')
      return stretch(
        { from: new UTCDate(today.getFullYear() + ahead, 0, 1), to: new UTCDate(today.getFullYear() + ahead, 11, 31) },
        place + 1,
      );
    if (monthAt(words, place) >= 0 && ahead >= 0) {
      const month = monthAhead(today, monthAt(words, place));
      return stretch(month, place + 1);
    }
  }
  if (saidAll(words, from, 'week after next')) return stretch(weekOf(today, 2), from + 3);
  if (saidAll(words, from, 'weekend after next')) return stretch(weekendOf(today, 2), from + 3);
  if (saidAll(words, from, 'month after next'))
    return stretch(monthOf(today.getFullYear(), today.getMonth() + 2), from + 3);
  if (saidAll(words, from, 'weekend of')) {
    const day = readDay(words, from + 2, context);
    return day && stretch(weekendOf(day.from), day.next);
  }
  if (saidAll(words, from, 'week after') && from > at && !joined(words[from + 2]))
    return stretch(weekOf(today, 1), from + 2);
  if (saidAll(words, from, 'weekend'))
    return from > at || said(words, at - 1) === 'at' ? stretch(weekendOf(today), from + 1) : null;
  const commencing = which === 'w' && what === 'c' && words[from + 1]!.gap === '/';
  if (commencing || (which === 'week' && /^(?:of|commencing|beginning|starting)$/.test(what))) {
    const day = readDay(words, from + 2, context);
    return day && stretch(weekOf(day.from), day.next);
  }
  const month = monthAt(words, at);
  const certain =
    (month >= 0 && month !== 2 && month !== 4 && said(words, at) !== 'mar') ||
    /^(?:in|during|for|by|until|till|before|since|of|from|early|late|mid)$/.test(said(words, at - 1)) ||
    yearAt(words, at + 1) !== null;
  return month >= 0 && certain ? namedMonth(words, at, context) : null;
};

/** "the end of next month", "early next week", "mid March", "the beginning of May", "the end of the week". */
const partOfPeriod: DayReader = (words, at, context) => {
  if (saidAll(words, at, 'month end'))
    return one(monthOf(context.today.getFullYear(), context.today.getMonth()).to, at + 2);
  const from = skipThe(words, at);
  const name = /^(end|start|beginning|middle|early|late|mid)$/.exec(said(words, from))?.[1];
  if (!name) return null;
  const noun = /^(?:end|start|beginning|middle)$/.test(name);
  const inside = skip(words, from + 1, noun ? /^of$/ : /^(?:in|on|-)$/);
  if (noun && inside === from + 1) return null;
  const { today } = context;
  const place = skipThe(words, inside);
  const whole =
    said(words, place) === 'week'
      ? stretch(weekOf(today), place + 1)
      : said(words, place) === 'year'
        ? stretch(
            { from: new UTCDate(today.getFullYear(), 0, 1), to: new UTCDate(today.getFullYear(), 11, 31) },
            place + 1,
          )
        : (namedMonth(words, inside, context) ??
          namedMonth(words, place, context) ??
          (said(words, place) === 'month'
            ? stretch(monthOf(today.getFullYear(), today.getMonth()), place + 1)
            : null) ??
          period(words, inside, context));
  if (!whole) return null;
  const days = differenceInCalendarDays(whole.to, whole.from) + 1;
  const week = days === 7;
  if (name === 'end') return one(week ? addDays(whole.from, 4) : whole.to, whole.next);
  if (name === 'start' || name === 'beginning') return one(whole.from, whole.next);
  if (week) {
    const [first, last] = name === 'early' ? [0, 1] : name === 'late' ? [3, 4] : [2, 2];
    return stretch({ from: addDays(whole.from, first), to: addDays(whole.from, last) }, whole.next);
  }
  if (days > 31) return null;
  if (name === 'middle' || name === 'mid') return one(addDays(whole.from, 14), whole.next);
  const [first, last] = name === 'early' ? [0, 9] : [20, lastDayOf(whole) - 1];
  return stretch({ from: addDays(whole.from, first), to: addDays(whole.from, last) }, whole.next);
};

/** "2026-03-05", "5/3/2026", "5.3.26", "19/09". */
const figures: DayReader = (words, at, context) => {
  const [a, b, c] = [words[at], words[at + 1], words[at + 2]];
  if (!a) return null;
  const whole = /^(\d{1,2})\.(\d{1,2})\.(\d{2}|\d{4})$/.exec(a.said);
  if (whole) return one(ordered(Number(whole[1]), Number(whole[2]), Number(whole[3]), context), at + 1);
  const isMark = (word: Word | undefined, marks: RegExp) =>
    word !== undefined && marks.test(word.gap) && /^\d+$/.test(word.said);
  if (/^\d{4}$/.test(a.said) && isMark(b, /^[-/]$/) && isMark(c, /^[-/]$/))
    return one(dayOf(Number(a.said), Number(b!.said) - 1, Number(c!.said)), at + 3);
  if (!/^\d{1,2}$/.test(a.said) || !isMark(b, /^[-/.]$/) || !/^\d{1,2}$/.test(b!.said)) return null;
  if (isMark(c, /^[-/.]$/) && /^(?:\d{2}|\d{4})$/.test(c!.said))
    return one(ordered(Number(a.said), Number(b!.said), Number(c!.said), context), at + 3);
  const fraction =
    /^(?:1|2|3)$/.test(a.said) &&
    /^[234]$/.test(b!.said) &&
    !/^(?:on|by|for|until|from|before)$/.test(said(words, at - 1));
  if (b!.gap !== '/' || fraction || (a.said === '24' && b!.said === '7')) return null;
  return one(ordered(Number(a.said), Number(b!.said), null, context), at + 2);
};

/** The day of two figures in the region's order, or in the other where that is the only one that makes a day. */
function ordered(first: number, second: number, year: number | null, { region, today }: DayContext): Date | null {
  const orders =
    region === 'US'
      ? [
          [second, first],
          [first, second],
        ]
      : [
          [first, second],
          [second, first],
        ];
  for (const [day, month] of orders as [number, number][]) {
    if (month < 1 || month > 12) continue;
    const date = year === null ? dayOfYearAhead(today, month - 1, day) : dayOf(year, month - 1, day);
    if (date) return date;
  }
  return null;
}

/** All ways of naming a day. Of several that read the same words the longest counts, of equals the first. */
const READERS: readonly DayReader[] = [
  besideDay,
  weekdayBeside,
  bankHoliday,
  season,
  nthOfMonth,
  weeksOn,
  weekday,
  nearDay,
  counted,
  namedDay,
  partOfPeriod,
  period,
  figures,
  dayAndMonth,
  monthAndDay,
  dayOfMonth,
];

/** Nobody reckons a day from more days than this. */
const DEEPEST = 2;
/** The day or stretch of days that the words at a place name; `null` where they name none. */
export function readDay(words: readonly Word[], at: number, context: DayContext): DayRead | null {
  const depth = context.depth ?? 0;
  if (depth > DEEPEST) return null;
  const place = at * (DEEPEST + 1) + depth;
  const known = context.known?.get(place);
  if (known !== undefined) return known;
  const within = { ...context, depth: depth + 1 };
  let best: DayRead | null = null;
  for (const read of READERS) {
    const found = read(words, at, within);
    if (found && found.next > (best?.next ?? at) && exists(found.from) && exists(found.to)) best = found;
  }
  context.known?.set(place, best);
  return best;
}

const LINK = /^(?:to|until|till|through|thru|and)$/;

/**
 * A stretch between two days: "between the 3rd and the 6th", "from Monday to Friday", "3-6 March". The first may borrow
 * the month of the second.
 */
export function readDayRange(words: readonly Word[], at: number, context: DayContext): DayRead | null {
  const opening = /^(?:between|from)$/.test(said(words, at)) ? at + 1 : at;
  const between = said(words, at) === 'between';
  const first = readDay(words, opening, context) ?? bareDay(words, opening);
  if (!first) return null;
  const link = words[first.next];
  if (!link) return null;
  const dash = /^[-–—]$/.test(link.gap);
  if (!dash && !LINK.test(link.said)) return null;
  if (!dash && link.said === 'and' && !between) return null;
  if (!dash && between && link.said !== 'and') return null;
  const place = dash ? first.next : first.next + 1;
  const monthFirst = monthAt(words, opening) >= 0;
  const figureMayDo = between || dash || opening > at;
  const secondFrom = (today: Date): DayRead | null => {
    const from = today === context.today ? context : { today, region: context.region };
    return (
      readDay(words, place, from) ?? (figureMayDo || monthFirst ? bareSecond(words, place, from, monthFirst) : null)
    );
  };
  const near = secondFrom(monthFirst ? first.from : context.today);
  // A second day that would lie before the first is the next of its name after it.
  const second = near && near.to < first.from ? secondFrom(first.from) : near;
  if (!second) return null;
  const start = 'day' in first ? borrowMonth(first.day, second.from) : first.from;
  if (!exists(second.to) || !exists(start)) return null;
  const from = borrowed(words, opening, first, second) ?? start;
  const ends = [
    { at: opening, next: first.next, day: from },
    { at: place, next: second.next, day: second.to },
  ];
  return second.to < from ? null : { from, to: second.to, next: second.next, ends };
}

interface BareDay {
  day: number;
  next: number;
  from: Date;
  to: Date;
}

/** A figure that can only be a day with the month of the one after it: "3 to 6 March". */
function bareDay(words: readonly Word[], at: number): BareDay | null {
  const day = monthDay(words, skipThe(words, at));
  return day && { day: day.value, next: day.next, from: new UTCDate(0), to: new UTCDate(0) };
}

function bareSecond(words: readonly Word[], at: number, { today }: DayContext, afterMonth: boolean): DayRead | null {
  const from = skipThe(words, at);
  const day = monthDay(words, from);
  return day?.ordinal || (day && (from > at || afterMonth)) ? one(dayOfMonthAhead(today, day.value), day.next) : null;
}

const borrowMonth = (day: number, of: Date): Date => new UTCDate(of.getFullYear(), of.getMonth(), day);

/** "the 3rd to the 6th of May": the first day is of the month that the second names. */
function borrowed(words: readonly Word[], at: number, first: DayRead | BareDay, second: DayRead): Date | null {
  const day = monthDay(words, skipThe(words, at));
  if (!day || day.next !== first.next) return null;
  const named = words.slice(first.next, second.next).some((word) => MONTHS.includes(word.said));
  return named ? borrowMonth(day.value, second.from) : null;
}
