import { joined, said, type Count, type Word } from '../word.js';

const table = (words: string): ReadonlyMap<string, number> =>
  new Map(
    words
      .trim()
      .split(/\s+/)
      .map((entry) => [entry.split(':')[0]!, Number(entry.split(':')[1])]),
  );

export const UNITS =
  table(`zero:0 nil:0 one:1 two:2 three:3 four:4 five:5 six:6 seven:7 eight:8 nine:9 ten:10 eleven:11 twelve:12
  thirteen:13 fourteen:14 fifteen:15 sixteen:16 seventeen:17 eighteen:18 nineteen:19`);
export const TENS = table('twenty:20 thirty:30 forty:40 fourty:40 fifty:50 sixty:60 seventy:70 eighty:80 ninety:90');
const SCALES = table('hundred:100 thousand:1000 grand:1000 million:1000000 billion:1000000000');
const GROUPS = table('dozen:12 couple:2 pair:2 score:20');
const ORDINAL_WORDS =
  table(`first:1 second:2 third:3 fourth:4 fifth:5 sixth:6 seventh:7 eighth:8 ninth:9 tenth:10 eleventh:11
  twelfth:12 twelth:12 thirteenth:13 fourteenth:14 fifteenth:15 sixteenth:16 seventeenth:17 eighteenth:18 nineteenth:19 twentieth:20
  thirtieth:30 fortieth:40 fiftieth:50 sixtieth:60 seventieth:70 eightieth:80 ninetieth:90 hundredth:100`);
const FRACTIONS = table('half:0.5 quarter:0.25 third:0.3333333333333333');
const ORDINAL_ENDING = /^(?:st|nd|rd|th)$/;
export const isOrdinalEnding = (letters: string): boolean => ORDINAL_ENDING.test(letters);

/** A number in digits: `1,500` has thousands, `2.5` a decimal part. `null` for anything else. */
export function readDigits(written: string): number | null {
  if (/^\d{1,3}(,\d{3})+(\.\d+)?$/.test(written)) return Number(written.replaceAll(',', ''));
  return /^\d{1,15}(\.\d+)?$/.test(written) ? Number(written) : null;
}

/** "and a half", "and three quarters" after a number. */
function readFraction(words: readonly Word[], at: number): Count | null {
  if (said(words, at) !== 'and' || !joined(words[at])) return null;
  const article = /^(?:a|one)$/.test(said(words, at + 1));
  if (article && said(words, at + 2) === 'half') return { value: 0.5, next: at + 3 };
  if (article && said(words, at + 2) === 'quarter') return { value: 0.25, next: at + 3 };
  if (said(words, at + 1) === 'three' && said(words, at + 2) === 'quarters') return { value: 0.75, next: at + 3 };
  return null;
}

/** One word or figure below a hundred that may follow what was read so far. */
function fits(word: string, current: number): number | null {
  const unit = UNITS.get(word);
  if (unit !== undefined && unit > 0) {
    if (current % 100 === 0) return unit;
    return current % 100 >= 20 && current % 10 === 0 && unit < 10 ? unit : null;
  }
  const ten = TENS.get(word);
  return ten !== undefined && current % 100 === 0 ? ten : null;
}

function readWholeWords(words: readonly Word[], at: number): Count | null {
  const article = /^an?$/.test(said(words, at));
  if (/^(?:zero|nil|nought|naught)$/.test(said(words, at))) return { value: 0, next: at + 1 };
  const bare =
    /^(?:hundred|thousand)$/.test(said(words, at)) && !/^(?:and|few|several|many)$/.test(said(words, at - 1));
  let [total, current, next, begun] = [0, article || bare ? 1 : 0, article ? at + 1 : at, false];
  for (; next === at || joined(words[next]);) {
    const word = said(words, next);
    const small = article && !begun ? null : fits(word, bare && !begun ? 0 : current);
    const scale = SCALES.get(word);
    if (small !== null && !(bare && !begun)) current += small;
    else if (word === 'hundred' && current > 0 && current < 100) current *= 100;
    else if (scale !== undefined && scale > 100 && current > 0) {
      total += current * scale;
      current = 0;
    } else if (
      word === 'and' &&
      begun &&
      current % 100 === 0 &&
      (current > 0 || total > 0) &&
      fits(said(words, next + 1), current) !== null &&
      joined(words[next + 1])
    ) {
      next++;
      continue;
    } else break;
    begun = true;
    next++;
  }
  return begun ? { value: total + current, next } : null;
}

/** "a dozen", "half a dozen", "a couple of", "a pair". */
function readGroup(words: readonly Word[], at: number): Count | null {
  if (said(words, at) === 'half' && said(words, at + 1) === 'a' && said(words, at + 2) === 'dozen')
    return { value: 6, next: at + 3 };
  const article = /^an?$/.test(said(words, at)) ? 1 : 0;
  const group = said(words, at + article);
  const size = GROUPS.get(group);
  if (size === undefined || (article === 0 && group !== 'dozen')) return null;
  const next = at + article + 1;
  return {
    value: size,
    next: (group === 'couple' || group === 'pair') && said(words, next) === 'of' ? next + 1 : next,
  };
}

/**
 * Reads a number that begins at a word: "250", "1,500", "two hundred and fifty", "a dozen", "half a dozen", "3k",
 * "one and a half", "2.5 million".
 */
export function readCount(words: readonly Word[], at: number): Count | null {
  const group = readGroup(words, at);
  if (group) return group;
  const digits = readDigits(said(words, at));
  let count: Count | null = digits === null ? readWholeWords(words, at) : { value: digits, next: at + 1 };
  if (!count) return null;
  const after = words[count.next];
  if (digits !== null && after?.glued && after.said === 'k') count = { value: digits * 1000, next: count.next + 1 };
  else if (digits !== null && after && joined(after)) {
    const scale = SCALES.get(after.said);
    if (scale !== undefined) count = { value: digits * scale, next: count.next + 1 };
  }
  if (said(words, count.next) === 'dozen' && joined(words[count.next]))
    count = { value: count.value * 12, next: count.next + 1 };
  const fraction = readFraction(words, count.next);
  return fraction ? { value: count.value + fraction.value, next: fraction.next } : count;
}

export const isOrdinalWord = (word: string): boolean => ORDINAL_WORDS.has(word);

/** Reads a place in an order that begins at a word: "3rd", "third", "twenty-first". */
export function readOrdinal(words: readonly Word[], at: number): Count | null {
  const digits = /^\d{1,9}$/.test(said(words, at)) ? Number(said(words, at)) : null;
  const ending = words[at + 1];
  if (digits !== null)
    return ending?.glued && ORDINAL_ENDING.test(ending.said) ? { value: digits, next: at + 2 } : null;
  const whole = ORDINAL_WORDS.get(said(words, at));
  if (whole !== undefined) return { value: whole, next: at + 1 };
  const ten = TENS.get(said(words, at));
  const unit = ORDINAL_WORDS.get(said(words, at + 1));
  if (ten !== undefined && unit !== undefined && unit < 10 && joined(words[at + 1]))
    return { value: ten + unit, next: at + 2 };
  return null;
}

/** "half a", "half an", "a quarter of a", "three quarters of an" before a unit. */
export function readFractionOf(words: readonly Word[], at: number): Count | null {
  const skip = (from: number): number => {
    let next = said(words, from) === 'of' ? from + 1 : from;
    if (/^an?$/.test(said(words, next))) next++;
    return next;
  };
  if (said(words, at) === 'three' && said(words, at + 1) === 'quarters') return { value: 0.75, next: skip(at + 2) };
  const from = /^an?$/.test(said(words, at)) ? at + 1 : at;
  const fraction = FRACTIONS.get(said(words, from));
  if (fraction === undefined || fraction < 0.25 || said(words, from) === 'third') return null;
  const next = skip(from + 1);
  return next > from + 1 ? { value: fraction, next } : null;
}

/** Words before "one" that make it a pronoun: "this one", "the blue one". */
const BEFORE_PRONOUN =
  /^(?:this|that|the|which|another|any|no|each|every|some|right|wrong|other|last|next|same|first|second|third|only|new|old|big|small|large|little)$/;
const ARTICLE = /^(?:the|an?|that|this|my|your|our)$/;
/** Words that never stand between an article and "one". */
const NO_ADJECTIVE =
  /^(?:for|and|or|to|want|need|just|at|of|have|get|order|please|by|with|is|are|like|take|send|make|be)$/;

/** "this one", "the blue one", "no one", "one of us". */
export function isPronoun(words: readonly Word[], at: number): boolean {
  if (words[at]!.said !== 'one') return false;
  const before = words[at - 1]?.said ?? '';
  // "Only one of those" counts; "the only one" does not.
  if (words[at + 1]?.said === 'of' && /^(?:your|our|us|you|my|their|his|her)$/.test(words[at + 2]?.said ?? ''))
    return true;
  if (/^(?:only|just)$/.test(before) && !ARTICLE.test(words[at - 2]?.said ?? '')) return false;
  const earlier = words.slice(Math.max(0, at - 3), Math.max(0, at - 1));
  return BEFORE_PRONOUN.test(before) || (!NO_ADJECTIVE.test(before) && earlier.some(({ said }) => ARTICLE.test(said)));
}

/** What half of is an amount or a time of its own. */
const HALF_OF =
  /^(?:dozen|hour|hr|day|minute|mile|year|century|million|thousand|hundred|pint|litre|kilo|pound|second|mo|sec|chance|past|price|term|way|century|tick|metre|inch|yard|acre|stone|tonne|ton)s?$/;

/** "Half a rose": half of one thing. */
export const isHalf = (words: readonly Word[], at: number): boolean =>
  words[at]!.said === 'half' &&
  /^an?$/.test(words[at + 1]?.said ?? '') &&
  words[at + 2] !== undefined &&
  !HALF_OF.test(words[at + 2]!.said) &&
  !/^(?:and|a|an|past|the)$/.test(words[at - 1]?.said ?? '');

/** What makes a figure after it less than nothing, as the first group. */
export const MINUS = /(?:^|[^\p{L}\p{N}])(minus\s+|negative\s+|[-−])$/iu;
