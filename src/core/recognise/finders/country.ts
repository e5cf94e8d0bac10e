import type { CountryNames } from '../../language/language.js';
import { foldWord, tokenise, type Token } from '../../text/tokens.js';
import type { Finder, Found } from './finder.js';

interface Name {
  words: string[];
  country: string;
}

type NamesByWord = ReadonlyMap<string, readonly Name[]>;

const known = new WeakMap<CountryNames, NamesByWord>();

/** Every name of every country by its first word, the longest first. */
function byFirstWord(countries: CountryNames): NamesByWord {
  const before = known.get(countries);
  if (before) return before;
  const mainNames = new Map([...countries.names].reverse().map(([name, code]) => [code, name]));
  const first = new Map<string, Name[]>();
  for (const [name, code] of [...countries.names, ...countries.otherNames]) {
    const words = tokenise(name).tokens.map(({ norm }) => norm);
    const [word] = words;
    if (word !== undefined)
      first.set(word, [...(first.get(word) ?? []), { words, country: mainNames.get(code) ?? code }]);
  }
  for (const list of first.values()) list.sort((a, b) => b.words.length - a.words.length);
  known.set(countries, first);
  return first;
}

function matchAt(tokens: readonly Token[], at: number, countries: CountryNames): Name | undefined {
  const token = tokens[at]!;
  if (!countries.isName(token)) return undefined;
  return [token.norm, token.mended]
    .flatMap((word) => byFirstWord(countries).get(foldWord(word)) ?? [])
    .find(({ words }) => words.every((word, index) => index === 0 || tokens[at + index]?.norm === word));
}

/** Countries by any of their names; the value is the main one. */
export const countryFinder: Finder = {
  kinds: ['country'],
  prepare:
    (_, { language }) =>
    ({ tokens }) => {
      const found: Found[] = [];
      for (let at = 0; at < tokens.length;) {
        const name = matchAt(tokens, at, language.countries);
        if (name) {
          const last = tokens[at + name.words.length - 1]!;
          found.push({ start: tokens[at]!.start, end: last.end, value: name.country, match: 'exact' });
          at += name.words.length;
        } else at++;
      }
      return found;
    },
};
