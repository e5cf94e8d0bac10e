import type { Band, Language } from '../language/language.js';
import type { Token } from './tokens.js';

/** Puts misspelt words right. */
export interface Speller {
  /** @returns what to read a word as, folded (two words where a space is missing), or `null` to leave it as it is */
  mend(token: Token): string | null;
}

/** The dearest mending, by length of the word: about one slip in three letters. */
const limitOf = (length: number): number => (length < 4 ? 1 : length < 6 ? 1.5 : length < 9 ? 2 : 2.6);
const FIRST_LETTER = 0.6;
/** What the dictionary's words cost beside the bot's own, by how common they are. */
const bandCost = (band: Band): number => (band <= 10 ? 0.3 : band <= 20 ? 0.45 : 0.7);
/** Words that are rarer are known when they are written, but nothing is mended to them. */
const RAREST = 35;
const SHORTEST = 3;
/** Without a dictionary short words are left alone: too many of them are near to one another. */
const SHORTEST_FOREIGN = 6;
const LONGEST = 24;

const [DOUBLED, DROPPED, ADDED, SWAPPED, OTHER_VOWEL, OTHER_LETTER] = [0.6, 0.9, 1, 0.8, 0.7, 1.05] as const;
const rows = [new Float64Array(LONGEST + 1), new Float64Array(LONGEST + 1), new Float64Array(LONGEST + 1)] as const;

/** Where letters stand in the alphabet, a bit each; a word is a set of them. */
const letterBit = (code: number): number => 1 << (code & 31);
const VOWELS = [...'aeiouy'].reduce((bits, vowel) => bits | letterBit(vowel.charCodeAt(0)), 0);
const isVowel = (code: number): boolean => code < 128 && (VOWELS & letterBit(code)) !== 0;

/**
 * Slips between a written word and a wanted one (optimal string alignment; Damerau, 1964), the usual ones cheaper:
 * a letter doubled or not, one vowel for another, two neighbours swapped, a letter left out.
 * @returns anything above the limit as `Infinity`
 */
export function slips(written: string, wanted: string, limit: number): number {
  if (Math.abs(written.length - wanted.length) * DOUBLED > limit || wanted.length > LONGEST) return Infinity;
  let [beforeLast, last, current] = rows;
  for (let column = 0; column <= wanted.length; column++) last[column] = column * DROPPED;
  for (let row = 1; row <= written.length; row++) {
    const own = written.charCodeAt(row - 1);
    const before = row > 1 ? written.charCodeAt(row - 2) : -1;
    const more = own === before ? DOUBLED : ADDED;
    const change = isVowel(own) ? OTHER_VOWEL : OTHER_LETTER;
    let lowest = (current[0] = row * ADDED);
    for (let column = 1; column <= wanted.length; column++) {
      const other = wanted.charCodeAt(column - 1);
      const previous = column > 1 ? wanted.charCodeAt(column - 2) : -1;
      let cost = last[column - 1]! + (own === other ? 0 : isVowel(other) ? change : OTHER_LETTER);
      cost = Math.min(cost, last[column]! + more, current[column - 1]! + (other === previous ? DOUBLED : DROPPED));
      if (own === previous && before === other) cost = Math.min(cost, beforeLast[column - 2]! + SWAPPED);
      current[column] = cost;
      if (cost < lowest) lowest = cost;
    }
    if (lowest > limit) return Infinity;
    [beforeLast, last, current] = [last, current, beforeLast];
  }
  return last[wanted.length]! > limit ? Infinity : last[wanted.length]!;
}

/** Which letters a word has, a bit each. */
function lettersOf(word: string): number {
  let letters = 0;
  for (let at = 0; at < word.length; at++) letters |= letterBit(word.charCodeAt(at));
  return letters;
}

function bits(of: number): number {
  let count = 0;
  for (let rest = of; rest !== 0; rest &= rest - 1) count++;
  return count;
}

/** Letters that one of two words has and the other has not, where they are the same but for a slip or two. */
const MOST_OTHER_LETTERS = 4;

interface Shelved {
  word: string;
  letters: number;
  /** What the word costs beside the bot's own. */
  extra: number;
}

/** Words by first letter and length, so that few need to be compared. */
class Shelf {
  readonly #words = new Map<string, Shelved[]>();

  constructor(words: Iterable<readonly [word: string, extra: number]>) {
    for (const [word, extra] of words) {
      if (word.length < SHORTEST) continue;
      const key = `${word[0]!}${word.length}`;
      const shelved = { word, letters: lettersOf(word), extra };
      const others = this.#words.get(key);
      if (others) others.push(shelved);
      else this.#words.set(key, [shelved]);
    }
  }

  /** Tells the words that begin with one of the letters and have about the length and letters of a word. */
  near(norm: string, firstLetters: Iterable<string>, tell: (near: Shelved) => void): void {
    const letters = lettersOf(norm);
    for (const first of firstLetters) {
      for (let length = norm.length - 2; length <= norm.length + 2; length++) {
        for (const shelved of this.#words.get(`${first}${length}`) ?? [])
          if (bits(shelved.letters ^ letters) <= MOST_OTHER_LETTERS) tell(shelved);
      }
    }
  }
}

const shelves = new WeakMap<Language, Shelf>();

/** The commoner words of a language. */
function commonWords(language: Language): Shelf {
  let shelf = shelves.get(language);
  if (!shelf) {
    const common = [...language.dictionary].filter(([, band]) => band <= RAREST);
    shelves.set(language, (shelf = new Shelf(common.map(([word, band]) => [word, bandCost(band)]))));
  }
  return shelf;
}

const ALL_LETTERS = 'abcdefghijklmnopqrstuvwxyz';
const COMMONEST: Band = 10;
const MOST_REMEMBERED = 20_000;

/** Two everyday words written as one, if the word is that. */
function apart(norm: string, { dictionary, spelling }: Language): string | null {
  for (let at = 1; at < norm.length; at++) {
    const [left, right] = [norm.slice(0, at), norm.slice(at)];
    const known = (word: string) =>
      (word.length > 1 || spelling.isOneLetterWord(word)) && dictionary.get(word) === COMMONEST;
    if (known(left) && known(right) && norm.length > 5) return `${left} ${right}`;
  }
  return null;
}

/**
 * Prepares the mending of words: the bot's own words first, then the commoner ones of the dictionary.
 * @param own the bot's words, folded; they are never mended
 * @param language whose dictionary and shorthand serve; without one there are the bot's own words alone
 */
export function prepareSpeller(own: ReadonlySet<string>, language?: Language): Speller {
  const ownWords = new Shelf([...own].map((word) => [word, 0]));
  const remembered = new Map<string, string | null>();

  const isKnown = (norm: string): boolean => {
    if (language?.dictionary.has(norm)) return true;
    const singular = norm.endsWith('s') ? norm.slice(0, -1) : null;
    return (
      singular !== null &&
      singular.length > SHORTEST &&
      !singular.endsWith('y') &&
      (own.has(singular) || (language?.dictionary.has(singular) ?? false))
    );
  };

  const search = (norm: string): string | null => {
    const spoken = language?.spelling.asSpoken(norm) ?? null;
    if (spoken !== null && isKnown(spoken)) return spoken;
    let best: string | null = null;
    let bestCost = limitOf(norm.length) + 1e-9;
    const consider = ({ word, extra }: Shelved): void => {
      const first = word[0] === norm[0] ? 0 : FIRST_LETTER;
      const cost = slips(norm, word, bestCost - extra - first) + extra + first;
      if (cost < bestCost) [best, bestCost] = [word, cost];
    };
    // The first letter is seldom wrong; a swap with the second is.
    const likely = new Set([norm[0]!, norm[1]!]);
    ownWords.near(norm, ALL_LETTERS, consider);
    if (!language) return best;
    commonWords(language).near(norm, likely, consider);
    return best ?? apart(norm, language);
  };

  return {
    mend({ norm, text, start }) {
      if (own.has(norm)) return null;
      const short = language?.spelling.shorthand.get(norm);
      if (short !== undefined) return short;
      if (
        norm.length < (language ? SHORTEST : SHORTEST_FOREIGN) ||
        norm.length > LONGEST ||
        isKnown(norm) ||
        !/^\p{L}+$/u.test(text)
      )
        return null;
      // A capital within the text is a name, which has a spelling of its own.
      if (start > 0 && /^\p{Lu}\p{Ll}/u.test(text)) return null;
      const known = remembered.get(norm);
      if (known !== undefined) return known;
      const mended = search(norm);
      if (remembered.size >= MOST_REMEMBERED) remembered.clear();
      remembered.set(norm, mended);
      return mended;
    },
  };
}
