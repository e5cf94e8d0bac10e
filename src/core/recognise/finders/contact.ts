import parsePhoneNumber, { isSupportedCountry } from 'libphonenumber-js';
import type { Finder, Found } from './finder.js';

const EMAIL = /[\p{L}\p{N}._%+-]{1,64}@[\p{L}\p{N}-]{1,63}(?:\.[\p{L}\p{N}-]{1,63})+/gu;
const URL = /(?:https?:\/\/|www\.)[^\s<>"']{3,500}/giu;
const PHONE = /(?<![\p{L}\p{N}-])\+?\(?\d[\d ().-]{5,22}\d(?![\p{L}\p{N}])/gu;
const ISO_DATE = /^\d{4}-\d{2}-\d{2}$/;

function matches(text: string, pattern: RegExp, read: (written: string) => string | null): Found[] {
  return [...text.matchAll(pattern)].flatMap((match): Found[] => {
    const written = match[0].replace(/[.,;:!?)]+$/u, '');
    const value = read(written);
    return value === null ? [] : [{ start: match.index, end: match.index + written.length, value, match: 'exact' }];
  });
}

/** E-mail addresses, in small letters. */
export const emailFinder: Finder = {
  kinds: ['email'],
  prepare:
    () =>
    ({ text }) =>
      matches(text, EMAIL, (written) => written.toLowerCase()),
};

/** Web addresses. */
export const urlFinder: Finder = {
  kinds: ['url'],
  prepare:
    () =>
    ({ text }) =>
      matches(text, URL, (written) => written),
};

/** Telephone numbers: E.164 where the country is known, else the digits. */
export const phoneFinder: Finder = {
  kinds: ['phone'],
  prepare(_, { region }) {
    const country = isSupportedCountry(region) ? region : undefined;
    return ({ text }) =>
      matches(text, PHONE, (written) => {
        if (ISO_DATE.test(written)) return null;
        const digits = written.replace(/[^\d+]/g, '');
        if (digits.length < 7) return null;
        const number = parsePhoneNumber(written, country);
        return number?.isPossible() ? number.number : digits;
      });
  },
};
