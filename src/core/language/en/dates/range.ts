import { UTCDate } from '@date-fns/utc';
import { dayOfMonthAhead, exists } from '../../../recognise/finders/dates/calendar.js';
import { readDay } from '../../../recognise/finders/dates/days.js';
import { MONTHS } from '../calendar.js';
import type { DayRead, ReckonedFrom } from '../../dayReader.js';
import type { Word } from '../../word.js';
import { monthAt, monthDay, one, said, skipThe } from './parts.js';

const LINK = /^(?:to|until|till|through|thru|and)$/;

/**
 * A stretch between two days: "between the 3rd and the 6th", "from Monday to Friday", "3-6 March". The first may borrow
 * the month of the second.
 */
export function readDayRange(words: readonly Word[], at: number, context: ReckonedFrom): DayRead | null {
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
    const from = today === context.today ? context : { today, region: context.region, readers: context.readers };
    return (
      readDay(words, place, from) ??
      (figureMayDo || monthFirst ? bareSecond(words, place, from, { afterMonth: monthFirst }) : null)
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

function bareSecond(
  words: readonly Word[],
  at: number,
  { today }: ReckonedFrom,
  { afterMonth }: { afterMonth: boolean },
): DayRead | null {
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
