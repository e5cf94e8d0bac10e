import type { Sum } from '../language.js';
import { joined, type Word } from '../word.js';
import { readCount, readFractionOf } from './numbers.js';

const SIGNS: ReadonlyMap<string, string> = new Map([
  ['£', 'GBP'],
  ['$', 'USD'],
  ['€', 'EUR'],
]);
const CURRENCIES: ReadonlyMap<string, string> = new Map([
  ['pound', 'GBP'],
  ['quid', 'GBP'],
  ['sterling', 'GBP'],
  ['gbp', 'GBP'],
  ['dollar', 'USD'],
  ['buck', 'USD'],
  ['usd', 'USD'],
  ['euro', 'EUR'],
  ['eur', 'EUR'],
]);
/** Written before the figure too. */
const CODES: ReadonlyMap<string, string> = new Map(['gbp', 'usd', 'eur'].map((code) => [code, code.toUpperCase()]));
/** Notes that have a name of their own. */
const NOTES: ReadonlyMap<string, number> = new Map([
  ['fiver', 5],
  ['tenner', 10],
]);
const SMALL: ReadonlyMap<string, string | null> = new Map([
  ['p', 'GBP'],
  ['pence', 'GBP'],
  ['penny', 'GBP'],
  ['pennies', 'GBP'],
  ['cent', null],
]);
const singular = (word: string): string => (word.endsWith('s') && word !== 'pence' ? word.slice(0, -1) : word);

/** "fifty" after "two pounds", "50" after "£2": pence. */
function penceAt(words: readonly Word[], at: number): { value: number; next: number } | null {
  const from = words[at]?.said === 'and' ? at + 1 : at;
  if (!words[from] || !joined(words[from])) return null;
  const count = readCount(words, from);
  if (!count || !Number.isInteger(count.value) || count.value < 1 || count.value > 99) return null;
  const named = SMALL.has(singular(words[count.next]?.said ?? ''));
  if (named) return { value: count.value, next: count.next + 1 };
  // "two pounds fifty", but not "two pounds and fifty roses".
  const after = words[count.next];
  return from === at &&
    count.value >= 5 &&
    (!after || !joined(after) || /^(?:for|each|per|a|an|please|is|was|but|or|to|on|in|off|the)$/.test(after.said))
    ? count
    : null;
}

function readSum(words: readonly Word[], at: number, home: string): Sum | null {
  const sign = SIGNS.get(words[at]!.said) ?? CODES.get(words[at]!.said);
  if (sign) {
    const count = words[at + 1] ? readCount(words, at + 1) : null;
    return count && { amount: count.value, currency: sign, next: count.next };
  }
  const word = words[at]!.said;
  const note = NOTES.get(word);
  if (note !== undefined) return { amount: note, currency: home, next: at + 1 };
  const article = /^an?$/.test(word) && NOTES.has(words[at + 1]?.said ?? '');
  if (article) return { amount: NOTES.get(words[at + 1]!.said)!, currency: home, next: at + 2 };
  const one = /^an?$/.test(word) ? { value: 1, next: at + 1 } : null;
  const count = readCount(words, at) ?? one;
  if (!count) return null;
  if (words[count.next - 1]!.said === 'grand') return { amount: count.value, currency: home, next: count.next };
  const unit = words[count.next];
  if (!unit || !joined(unit)) return null;
  const many = singular(unit.said);
  if (NOTES.has(many)) return { amount: count.value * NOTES.get(many)!, currency: home, next: count.next + 1 };
  const small = SMALL.get(many) ?? (SMALL.has(many) ? home : undefined);
  if (small !== undefined)
    return one === count ? null : { amount: count.value / 100, currency: small, next: count.next + 1 };
  const currency = CURRENCIES.get(many) ?? SIGNS.get(many);
  if (currency === undefined) return null;
  const pence = penceAt(words, count.next + 1);
  return { amount: count.value + (pence?.value ?? 0) / 100, currency, next: pence?.next ?? count.next + 1 };
}

/** Words beside which two figures are a price: "for two fifty", "two fifty each". */
const PRICE_BEFORE =
  /^(?:for|costs?|only|just|at|pay|paid|charged?|price|worth|of|was|were|under|over|about|around|than|is)$/;
const PRICE_AFTER = /^(?:each|apiece|off|refund|refunded|an?|per)$/;

/** "two fifty" where a price is spoken of: two pounds and fifty pence. */
function readShortPrice(words: readonly Word[], at: number, home: string): Sum | null {
  const pounds = readCount(words, at);
  if (!pounds || pounds.next !== at + 1 || pounds.value < 1 || pounds.value > 99 || /\d/.test(words[at]!.said))
    return null;
  const pence = words[pounds.next] && joined(words[pounds.next]) ? readCount(words, pounds.next) : null;
  if (!pence || pence.value < 20 || pence.value > 99 || /\d/.test(words[pounds.next]!.said)) return null;
  const spoken = PRICE_BEFORE.test(words[at - 1]?.said ?? '') && !joined(words[pence.next]);
  if (!spoken && !PRICE_AFTER.test(words[pence.next]?.said ?? '') && words.length > pence.next - at) return null;
  return { amount: pounds.value + pence.value / 100, currency: home, next: pence.next };
}

/**
 * A sum of money: "£4.50", "50p", "forty quid", "two pounds fifty", "a tenner", "three grand".
 * @param home the currency of a sum that names none (ISO 4217)
 */
export const readMoney = (words: readonly Word[], at: number, home: string): Sum | null =>
  readSum(words, at, home) ?? readShortPrice(words, at, home);

/** The words after a share of a hundred: "%", "percent", "per cent". @returns how many */
function percentSign(words: readonly Word[], at: number): number {
  const sign = words[at]?.said ?? '';
  if (sign === '%' || sign === 'percent') return 1;
  return sign === 'per' && words[at + 1]?.said === 'cent' ? 2 : 0;
}

/** A share of a hundred, as a number: "12.5 %", "twelve and a half per cent". */
export function readPercent(words: readonly Word[], at: number): { value: number; next: number } | null {
  const count = readFractionOf(words, at) ?? readCount(words, at);
  const length = count ? percentSign(words, count.next) : 0;
  return length > 0 ? { value: count!.value, next: count!.next + length } : null;
}
