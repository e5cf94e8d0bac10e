import type { Token } from '../../text/tokens.js';
import type { Finder, Found } from './finder.js';

const UNITS: Record<string, number> = {
  zero: 0, one: 1, two: 2, three: 3, four: 4, five: 5, six: 6, seven: 7, eight: 8, nine: 9, ten: 10, eleven: 11,
  twelve: 12, thirteen: 13, fourteen: 14, fifteen: 15, sixteen: 16, seventeen: 17, eighteen: 18, nineteen: 19,
};
const TENS: Record<string, number> = {
  twenty: 20, thirty: 30, forty: 40, fourty: 40, fifty: 50, sixty: 60, seventy: 70, eighty: 80, ninety: 90,
};
const SCALES: Record<string, number> = { hundred: 100, thousand: 1000, million: 1_000_000 };
const GROUPS: Record<string, number> = { dozen: 12, couple: 2, pair: 2, score: 20 };
/** Words before "one" that make it a pronoun: "this one", "the blue one". */
const BEFORE_PRONOUN = /^(this|that|the|which|another|any|no|each|every|some|right|wrong|other|last|next|same|first|second|third|only)$/;

const ORDINALS: Record<string, number> = {
  first: 1, second: 2, third: 3, fourth: 4, fifth: 5, sixth: 6, seventh: 7, eighth: 8, ninth: 9, tenth: 10,
  eleventh: 11, twelfth: 12, thirteenth: 13, fourteenth: 14, fifteenth: 15, sixteenth: 16, seventeenth: 17,
  eighteenth: 18, nineteenth: 19, twentieth: 20, thirtieth: 30,
};

/** A number in digits: `1,500` has thousands, `2.5` a decimal part. */
function readDigits(written: string): number | null {
  if (/^\d{1,3}(,\d{3})+(\.\d+)?$/.test(written)) return Number(written.replaceAll(',', ''));
  return /^\d+(\.\d+)?$/.test(written) ? Number(written) : null;
}

const LETTER = /\p{L}/u;

/** Digits inside a code ("A5", "LM-40213", "16th", "500gsm") are not numbers; "3x" is. */
function standsAlone(text: string, token: Token): boolean {
  const before = text[token.start - 1] ?? '';
  const after = text.slice(token.end, token.end + 2);
  if (LETTER.test(before) || (before === '-' && /[\p{L}\p{N}]/u.test(text[token.start - 2] ?? ''))) return false;
  return !LETTER.test(after[0] ?? '') || /^x(?!\p{L}|\p{N})/iu.test(after);
}

interface Run {
  value: number;
  /** Index after the last token. */
  next: number;
}

/** Reads a number in words that begins at a token: "two hundred and fifty", "a dozen", "half a dozen". */
function readNumberWords(tokens: readonly Token[], at: number): Run | null {
  const word = (index: number): string => tokens[index]?.norm ?? '';
  if (word(at) === 'half' && word(at + 1) === 'a' && word(at + 2) === 'dozen') return { value: 6, next: at + 3 };
  const article = word(at) === 'a' || word(at) === 'an' ? 1 : 0;
  const first = word(at + article);
  if (first in GROUPS) {
    if (!article && first !== 'dozen') return null;
    const next = at + article + 1;
    return { value: GROUPS[first]!, next: (first === 'couple' || first === 'pair') && word(next) === 'of' ? next + 1 : next };
  }
  if (article && !(first in SCALES)) return null;
  let total = 0;
  let current = article;
  let next = at + article;
  let read = false;
  for (;;) {
    const current_word = word(next);
    if (current_word in UNITS && (current % 100 === 0 || (current % 100 >= 20 && current % 10 === 0 && UNITS[current_word]! < 10))) {
      if (current % 100 !== 0 && UNITS[current_word]! === 0) break;
      current += UNITS[current_word]!;
    } else if (current_word in TENS && current % 100 === 0) {
      current += TENS[current_word]!;
    } else if (current_word === 'hundred' && (read || article) && current > 0 && current < 100) {
      current *= 100;
    } else if (current_word in SCALES && current_word !== 'hundred' && (read || article) && current > 0) {
      total += current * SCALES[current_word]!;
      current = 0;
    } else if (current_word === 'and' && read && (current % 100 === 0 || total > 0)) {
      const after = word(next + 1);
      if (!(after in UNITS || after in TENS) || (current === 0 && total === 0) || current % 100 !== 0) break;
      if (current < 100 && total === 0) break;
      next++;
      continue;
    } else break;
    read = true;
    next++;
  }
  if (!read) return null;
  if (word(next) in GROUPS && word(next) === 'dozen') return { value: (total + current) * 12, next: next + 1 };
  return { value: total + current, next };
}

/** Whole and decimal numbers in digits and words. */
export const numberFinder: Finder = {
  kinds: ['number'],
  prepare() {
    return ({ text, tokens }) => {
      const found: Found[] = [];
      for (let at = 0; at < tokens.length; ) {
        const token = tokens[at]!;
        const digits = readDigits(token.norm);
        if (digits !== null) {
          if (!standsAlone(text, token)) {
            at++;
            continue;
          }
          const scale = SCALES[tokens[at + 1]?.norm ?? ''] ?? (tokens[at + 1]?.norm === 'dozen' ? 12 : undefined);
          const last = scale === undefined ? at : at + 1;
          found.push({ start: token.start, end: tokens[last]!.end, value: digits * (scale ?? 1), match: 'exact' });
          at = last + 1;
          continue;
        }
        const run = readNumberWords(tokens, at);
        const pronoun = run?.next === at + 1 && token.norm === 'one' && BEFORE_PRONOUN.test(tokens[at - 1]?.norm ?? '');
        if (run && !pronoun) {
          found.push({ start: token.start, end: tokens[run.next - 1]!.end, value: run.value, match: 'exact' });
          at = run.next;
        } else at++;
      }
      return found;
    };
  },
};

/** Places in an order: "3rd", "third". */
export const ordinalFinder: Finder = {
  kinds: ['ordinal'],
  prepare() {
    return ({ text, tokens }) => [
      ...tokens.flatMap((token): Found[] =>
        token.norm in ORDINALS
          ? [{ start: token.start, end: token.end, value: ORDINALS[token.norm]!, match: 'exact' }]
          : [],
      ),
      ...[...text.matchAll(/(?<![\p{L}\p{N}])(\d{1,9})(?:st|nd|rd|th)(?![\p{L}\p{N}])/giu)].map(
        (match): Found => ({ start: match.index, end: match.index + match[0].length, value: Number(match[1]), match: 'exact' }),
      ),
    ].sort((a, b) => a.start - b.start);
  },
};
