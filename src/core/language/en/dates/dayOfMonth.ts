import { dayOfMonthAhead } from '../../../recognise/finders/dates/calendar.js';
import type { DayReader } from '../../dayReader.js';
import { joined } from '../../word.js';
import { said, one, skipThe, monthDay } from './parts.js';

const AFTER_ORDINAL =
  /^(?:one|time|of|order|item|thing|floor|class|person|two|three|line|option|name|party|attempt|try|day|week|quarter|half|page|size|street|avenue|road|bin|email|number|part|choice)$/;
const BEFORE_ORDINAL = /^(?:on|by|for|until|till|to|through|thru|from|before|after|and|between|or|is|the|since)$/;
/** Words before an ordinal that is hardly of a list: "it says the sixteenth", "do the ninth". */
const BEFORE_LATER = /^(?:do|said|says?|been|be|was|its|make|than|not|no|actually|maybe|then|about|around)$/;
/** The ordinals up to this one are places in a list as often as days; those from that one on are days alone. */
const [OF_LISTS, DAYS_ALONE] = [2, 13];

/** Whether an ordinal that is spelt out is a day, by its size and the word before it. */
const isDay = (ordinal: number, before: string): boolean =>
  ordinal >= DAYS_ALONE || BEFORE_ORDINAL.test(before) || (ordinal > OF_LISTS && BEFORE_LATER.test(before));

/** "the 3rd", "the third", "the 3" after a little word; looks forward. */
export const dayOfMonth: DayReader = (words, at, { today }) => {
  const from = skipThe(words, at);
  const day = monthDay(words, from);
  if (!day) return null;
  const spelt = day.ordinal && !/^\d/.test(said(words, from));
  const after = said(words, day.next);
  if (from === at && (!day.ordinal || spelt)) return null;
  if (words[day.next] && joined(words[day.next]) && AFTER_ORDINAL.test(after)) return null;
  if (spelt && at > 0 && !isDay(day.value, said(words, at - 1))) return null;
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
