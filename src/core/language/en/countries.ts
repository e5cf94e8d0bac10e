import english from 'i18n-iso-countries/langs/en.json';
import type { CountryNames } from '../language.js';

/** Names in use that the list of countries has not. */
const OTHER_NAMES: Readonly<Record<string, string>> = {
  UK: 'GB',
  'U.K.': 'GB',
  Britain: 'GB',
  'Great Britain': 'GB',
  England: 'GB',
  Scotland: 'GB',
  Wales: 'GB',
  'Northern Ireland': 'GB',
  America: 'US',
  'the States': 'US',
  'U.S.': 'US',
  Holland: 'NL',
  'the Netherlands': 'NL',
  Eire: 'IE',
  'Republic of Ireland': 'IE',
  Burma: 'MM',
  'Ivory Coast': 'CI',
  'South Korea': 'KR',
  'North Korea': 'KP',
  Russia: 'RU',
  Vietnam: 'VN',
  Syria: 'SY',
  Iran: 'IR',
  Tanzania: 'TZ',
  Bolivia: 'BO',
  Venezuela: 'VE',
  Moldova: 'MD',
  Taiwan: 'TW',
  'Czech Republic': 'CZ',
};
/** Names that are words or people's names too, and count only with a capital. */
const NEEDS_CAPITAL = /^(?:turkey|chad|jordan|georgia|us|niger|guinea|mali|oman|cuba|jersey|china|wales)$/;

const names = (english as { countries: Record<string, string | string[]> }).countries;

export const COUNTRIES: CountryNames = {
  names: Object.entries(names).flatMap(([code, own]) => [own].flat().map((name): [string, string] => [name, code])),
  otherNames: Object.entries(OTHER_NAMES),
  isName: ({ norm, text }) => !NEEDS_CAPITAL.test(norm) || (/^\p{Lu}/u.test(text) && (norm !== 'us' || text === 'US')),
};
