import parsePhoneNumber, { isSupportedCountry } from 'libphonenumber-js';
import type { MailWords } from '../../language/language.js';
import type { Token, TokenisedText } from '../../text/tokens.js';
import type { Finder, Found } from './finder.js';
import { speltRuns } from './spelled.js';

const EMAIL = /[\p{L}\p{N}._%+-]{1,64}@[\p{L}\p{N}-]{1,63}(?:\.[\p{L}\p{N}-]{1,63})+/gu;
const URL = /(?:https?:\/\/|www\.)[^\s<>"']{3,500}/giu;
const BARE_URL =
  /(?<![@\p{L}\p{N}.-])[\p{L}\p{N}-]{2,63}(?:\.[\p{L}\p{N}-]{2,63}){0,3}\.(?:com|org|net|co\.uk|org\.uk|gov\.uk|eu|info|io|example)(?:\/[^\s<>"']{0,400})?(?![\p{L}\p{N}@])/giu;
const PHONE = /(?<![\p{L}\p{N}-])\+?\(?\d[\d ().-]{5,22}\d(?![\p{L}\p{N}])/gu;
const ISO_DATE = /^\d{4}-\d{2}-\d{2}$/;

function matches(text: string, pattern: RegExp, read: (written: string) => string | null): Found[] {
  return [...text.matchAll(pattern)].flatMap((match): Found[] => {
    const written = match[0].replace(/[.,;:!?)]+$/u, '');
    const value = read(written);
    return value === null ? [] : [{ start: match.index, end: match.index + written.length, value, match: 'exact' }];
  });
}

const LAST_LABEL =
  /^(?:com|org|net|uk|eu|info|io|us|ie|de|fr|es|it|nl|be|ch|at|au|nz|ca|gov|edu|ac|co|me|biz|example)$/;
/** Words of a domain said apart, at most; and words and signs of what stands before the "at". */
const MOST_DOMAIN_WORDS = 4;
const MOST_LOCAL_WORDS = 10;
/** A word, or a sign that joins two: the dot of "rosa.mill". */
type Said = Pick<Token, 'norm' | 'start' | 'end'>;

function wordsAndSigns({ text, tokens }: TokenisedText): Said[] {
  return tokens.flatMap((token, at): Said[] => {
    const start = tokens[at - 1]?.end ?? token.start;
    const sign = text.slice(start, token.start);
    return /^[._-]$/.test(sign) ? [{ norm: sign, start, end: token.start }, token] : [token];
  });
}

/** E-mail addresses that were said: "rosa at mill beck dot org dot uk", "rosa.mill at example.org". */
function saidEmails(text: TokenisedText, { isAt, leadsTo, signs }: MailWords): Found[] {
  const signOf = (word: string): string | undefined => (/^[._-]$/.test(word) ? word : signs.get(word));
  const tokens = wordsAndSigns(text);
  const found: Found[] = [];
  const word = (at: number): string => tokens[at]?.norm ?? '';
  for (let at = 1; at < tokens.length - 2; at++) {
    if (!isAt(word(at)) && word(at) !== '@') continue;
    let first = at - 1;
    if (leadsTo(word(first)) || signOf(word(first)) !== undefined) continue;
    while (
      first >= 2 &&
      at - first < MOST_LOCAL_WORDS &&
      (signOf(word(first - 1)) !== undefined || tokens[first - 1]!.end === tokens[first]!.start)
    )
      first -= signOf(word(first - 1)) !== undefined ? 2 : 1;
    let next = at + 1;
    while (next < tokens.length && next - at <= MOST_DOMAIN_WORDS && signOf(word(next)) !== '.') next++;
    if (signOf(word(next)) !== '.' || next === at + 1) continue;
    let domain = tokens
      .slice(at + 1, next)
      .map(({ norm }) => signOf(norm) ?? norm)
      .join('');
    let last = '';
    while (signOf(word(next)) === '.' && word(next + 1) !== '') {
      last = word(next + 1);
      domain += `.${last}`;
      next += 2;
    }
    if (!LAST_LABEL.test(last)) continue;
    const local = tokens
      .slice(Math.max(0, first), at)
      .map(({ norm }) => signOf(norm) ?? norm)
      .join('');
    found.push({
      start: tokens[Math.max(0, first)]!.start,
      end: tokens[next - 1]!.end,
      value: `${local}@${domain}`,
      match: 'computed',
    });
    at = next - 1;
  }
  return found;
}

/** E-mail addresses, in small letters; those that were said word by word too. */
export const emailFinder: Finder = {
  kinds: ['email'],
  prepare:
    (_, { language }) =>
    (text) => {
      const written = matches(text.text, EMAIL, (found) => found.toLowerCase());
      const said = saidEmails(text, language.mails).filter((other) =>
        written.every(({ start, end }) => other.end <= start || other.start >= end),
      );
      return [...written, ...said].sort((a, b) => a.start - b.start);
    },
};

/** Web addresses. */
export const urlFinder: Finder = {
  kinds: ['url'],
  prepare:
    () =>
    ({ text }) => {
      const full = matches(text, URL, (written) => written);
      const bare = matches(text, BARE_URL, (written) => written);
      return [
        ...full,
        ...bare.filter(({ start }) => full.every((other) => start < other.start || start >= other.end)),
      ].sort((a, b) => a.start - b.start);
    },
};

const FEWEST_DIGITS = 7;
const MOST_DIGITS = 15;

/** Telephone numbers, in figures or digit by digit in words: E.164 where the country is known, else the digits. */
export const phoneFinder: Finder = {
  kinds: ['phone'],
  prepare(_, { region, language }) {
    const country = isSupportedCountry(region) ? region : undefined;
    const read = (written: string): string | null => {
      if (ISO_DATE.test(written)) return null;
      const digits = written.replace(/[^\d+]/g, '');
      if (digits.length < FEWEST_DIGITS) return null;
      const number = parsePhoneNumber(written, country);
      return number?.isPossible() ? number.number : digits;
    };
    return (text) => {
      const written = matches(text.text, PHONE, read);
      const said = speltRuns(text, language, { digitsOnly: true }).flatMap((run): Found[] => {
        const { signs, parts } = run;
        const place = run.original(0, signs.length);
        const inWords = parts.some(({ start, end }) => /\p{L}/u.test(text.text.slice(start, end)));
        if (!place || !inWords || signs.length < FEWEST_DIGITS || signs.length > MOST_DIGITS) return [];
        const value = read(signs);
        return value === null ? [] : [{ ...place, value, match: 'computed' }];
      });
      const free = said.filter((other) => written.every(({ start, end }) => other.end <= start || other.start >= end));
      return [...written, ...free].sort((a, b) => a.start - b.start);
    };
  },
};
