import english from 'i18n-iso-countries/langs/en.json';
import { foldWord, tokenise, type Token } from '../../text/tokens.js';
import type { Finder, Found } from './finder.js';

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

interface Name {
  words: string[];
  country: string;
}

const names = (english as { countries: Record<string, string | string[]> }).countries;
const mainName = (code: string): string => [names[code] ?? code].flat()[0]!;

/** Every name of every country by its first word. */
const byFirstWord = readNames();

function readNames(): Map<string, Name[]> {
  const all: [string, string][] = [
    ...Object.entries(names).flatMap(([code, own]) => [own].flat().map((name): [string, string] => [name, code])),
    ...Object.entries(OTHER_NAMES),
  ];
  const first = new Map<string, Name[]>();
  for (const [name, code] of all) {
    const words = tokenise(name).tokens.map(({ norm }) => norm);
    const [word] = words;
    if (word !== undefined) first.set(word, [...(first.get(word) ?? []), { words, country: mainName(code) }]);
  }
  for (const list of first.values()) list.sort((a, b) => b.words.length - a.words.length);
  return first;
}

function matchAt(tokens: readonly Token[], at: number): Name | undefined {
  const token = tokens[at]!;
  const capital = /^\p{Lu}/u.test(token.text);
  if (NEEDS_CAPITAL.test(token.norm) && (!capital || (token.norm === 'us' && token.text !== 'US'))) return undefined;
  return [token.norm, token.read]
    .flatMap((word) => byFirstWord.get(foldWord(word)) ?? [])
    .find(({ words }) => words.every((word, index) => index === 0 || tokens[at + index]?.norm === word));
}

/** Countries by any of their English names; the value is the main one. */
export const countryFinder: Finder = {
  kinds: ['country'],
  prepare:
    () =>
    ({ tokens }) => {
      const found: Found[] = [];
      for (let at = 0; at < tokens.length;) {
        const name = matchAt(tokens, at);
        if (name) {
          const last = tokens[at + name.words.length - 1]!;
          found.push({ start: tokens[at]!.start, end: last.end, value: name.country, match: 'exact' });
          at += name.words.length;
        } else at++;
      }
      return found;
    },
};
