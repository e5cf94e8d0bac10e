import { editDistance } from '../../text/distance.js';
import type { Token } from '../../text/tokens.js';
import { MONTHS, WEEKDAYS } from './calendar.js';
import { DICTIONARY } from './dictionary.js';

const SHORT: ReadonlyMap<string, string> = new Map(
  Object.entries({
    mon: 'monday',
    tue: 'tuesday',
    tues: 'tuesday',
    wed: 'wednesday',
    weds: 'wednesday',
    thu: 'thursday',
    thur: 'thursday',
    thurs: 'thursday',
    fri: 'friday',
    jan: 'january',
    feb: 'february',
    apr: 'april',
    jun: 'june',
    jul: 'july',
    aug: 'august',
    sep: 'september',
    sept: 'september',
    oct: 'october',
    nov: 'november',
    dec: 'december',
    tmrw: 'tomorrow',
    tomoz: 'tomorrow',
    tomo: 'tomorrow',
    '2moro': 'tomorrow',
    tonite: 'tonight',
    forty: 'forty',
    fourty: 'forty',
  }),
);

/** Long words that misspelt ones are drawn to, whatever the bot's own words. */
const STRONG = [
  ...WEEKDAYS,
  ...MONTHS.filter((month) => month.length > 5),
  'tomorrow',
  'fortnight',
  'weekend',
  'christmas',
  'tonight',
];

function strongWord(norm: string): string | undefined {
  if (norm.length < 5 || DICTIONARY.has(norm)) return undefined;
  const limit = norm.length < 7 ? 1 : 2;
  return STRONG.find((word) => word[0] === norm[0] && editDistance(norm, word, limit) <= limit);
}

/** "Tomorrow's" and "todays" are said for the day. */
const DAYS_OWN = new RegExp(`^(today|tonight|tomorrow|yesterday|${WEEKDAYS.join('|')})['’]?s$`);

function saidFor({ norm, mended, text: written }: Token): string {
  const day = DAYS_OWN.exec(norm)?.[1];
  if (day !== undefined) return day;
  // "We'd" is no Wednesday.
  return /['’]/.test(written) ? mended : (SHORT.get(norm) ?? strongWord(norm) ?? mended);
}

/** "Wed like some" lacks an apostrophe. */
const AFTER_WOULD = /^(?:like|love|rather|prefer|be|have|need|want|appreciate|also|really|just|both|all|best)$/;

/** What a word of a text is said for where numbers, days and times are read. */
export function readAs(tokens: readonly Token[], at: number): string {
  const token = tokens[at]!;
  const would = token.norm === 'wed' && AFTER_WOULD.test(tokens[at + 1]?.norm ?? '');
  return would ? token.norm : saidFor(token);
}
