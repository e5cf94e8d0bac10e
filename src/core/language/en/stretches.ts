import type { StretchWords } from '../talk.js';
import type { Count, Word } from '../word.js';
import { WEEKDAYS } from './calendar.js';
import { readCount } from './numbers.js';

/** Names of slots that hold the last day of a stretch. */
const LAST_NAMES = /(?:^|[_-])(?:to|until|till|end|return|back|last|out|check_?out|finish|leav|depart|home|expir)/i;
/** Names of slots that are little words. */
const LITTLE_NAMES = /^(?:at|when|on|to|from|by|until|start|begin)$/;

const WEEKDAY = new RegExp(`^(?:${WEEKDAYS.join('|')}|mon|tues?|weds?|thu(?:rs?)?|fri|sat|sun)$`, 'iu');
const BARE_WEEKDAY = new RegExp(`^(?:the\\s+)?${WEEKDAY.source.slice(1)}`, 'iu');

const NIGHTS: Readonly<Record<string, number>> = { night: 1, week: 7, fortnight: 14 };

/** So many nights. */
function readNights(words: readonly Word[], at: number): Count | null {
  const count = readCount(words, at) ?? (/^an?$/.test(words[at]!.said) ? { value: 1, next: at + 1 } : null);
  const unit = count && /^(night|week|fortnight)s?$/.exec(words[count.next]?.said ?? '')?.[1];
  return count && unit ? { value: count.value * NIGHTS[unit]!, next: count.next + 1 } : null;
}

/** Words before a day that tell which end of a stretch it is. */
const BEGINS =
  /(?:from|start\w*|begin\w*|leav\w*|pick\w*|first|arriv\w*|collect\w*)(?:\s+(?:on|it|them|up|is|should be))*(?:\s+the)?\s*$/iu;
const ENDS =
  /(?:until|till|to|back|return\w*|end\w*|finish\w*|last|by)(?:\s+(?:on|it|them|is|should be))*(?:\s+the)?\s*$/iu;
const DAY_ALONE = /^(?:the\s+)?(\d{1,2})(?:st|nd|rd|th)?$/iu;

export const STRETCHES: StretchWords = {
  isNameOfLast: (name) => LAST_NAMES.test(name),
  isLittleName: (name) => LITTLE_NAMES.test(name),
  called: { date: 'day', time: 'time' },
  choice: (name, value) => `the ${name} (${value})`,
  isWeekday: (words) => WEEKDAY.test(words),
  isOneWeekday: (words) => BARE_WEEKDAY.test(words),
  readNights,
  leadsToFirst: (before) => BEGINS.test(before),
  leadsToLast: (before) => ENDS.test(before),
  dayAlone: DAY_ALONE,
};
