import { dayOfMonthAhead } from '../../../recognise/finders/dates/calendar.js';
import type { DayReader } from '../../dayReader.js';
import { joined } from '../../word.js';
import { said, one, skipThe, monthDay } from './parts.js';

const AFTER_ORDINAL =
  /^(?:one|time|of|order|item|thing|floor|class|person|two|three|line|option|name|party|attempt|try|day|week|quarter|half|page|size|street|avenue|road|bin|email|number|part|choice)$/;
const BEFORE_ORDINAL = /^(?:on|by|for|until|till|to|from|before|after|and|between|or|is|the|since)$/;

/** "the 3rd", "the third", "the 3" after a little word; looks forward. */
export const dayOfMonth: DayReader = (words, at, { today }) => {
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
