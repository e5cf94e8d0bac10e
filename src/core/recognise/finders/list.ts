import type { Language } from '../../language/language.js';
import { NearWords } from '../../text/nearWords.js';
import { tokenise, type Token } from '../../text/tokens.js';
import type { Finder, Found, Match } from './finder.js';
import { Tries } from './tries.js';

interface Phrase {
  value: string;
  tokens: Token[];
  /** Signs that end it after its last word: the mark of `26"`. */
  suffix: string;
  /** Whether the words stand in another order than in the list. */
  turned?: true;
}

/** A word that occurs in a list. */
interface ListWord {
  norm: string;
  stem: string;
  number: boolean;
}

/** Edits that a word of this length may be off and still be taken for a misspelling. */
function allowedEdits(length: number): number {
  if (length < 4) return 0;
  if (length < 6) return 1;
  return length < 10 ? 2 : 3;
}

const isNumber = (word: string): boolean => /^\p{N}/u.test(word);

/** How a written word can be a word of the list without being a misspelling of it; `null` where it cannot. */
function matchWord(written: ListWord, wanted: ListWord, { numbers, spelling }: Language): Match | null {
  if (written.norm === wanted.norm) return 'exact';
  if (wanted.number && numbers.units.get(written.norm) === Number(wanted.norm)) return 'inflected';
  if (written.number || wanted.number) return null;
  const same = written.stem === wanted.stem && wanted.norm.length > 3;
  return same || spelling.isPlural(written.norm, wanted.norm) ? 'inflected' : null;
}

type WordMatches = ReadonlyMap<string, Match>;

/** The words of a list where those that a written word may match are found without looking at all. */
class ListWords {
  readonly #by = new Map<string, ListWord[]>();
  readonly #near: NearWords;
  readonly #language: Language;

  constructor(norms: Iterable<string>, language: Language) {
    this.#language = language;
    const words = [...norms].map((norm) => listWord(norm, language));
    for (const word of words) {
      this.#put(`= ${word.norm}`, word);
      this.#put(`stem ${word.stem}`, word);
      if (word.number) this.#put(`number ${Number(word.norm)}`, word);
    }
    this.#near = new NearWords(words.filter(({ number }) => !number).map(({ norm }) => norm));
  }

  #put(key: string, word: ListWord): void {
    const group = this.#by.get(key);
    if (group) group.push(word);
    else this.#by.set(key, [word]);
  }

  /** How words of the list match a written one. @param mayBeMisspelt whether slips are looked for */
  matches(norm: string, { mayBeMisspelt }: { mayBeMisspelt: boolean }): WordMatches {
    const written = listWord(norm, this.#language);
    const unit = this.#language.numbers.units.get(norm);
    const other = this.#language.spelling.otherNumber(norm);
    const keys = [`= ${norm}`, `= ${other}`, `stem ${written.stem}`, ...(unit === undefined ? [] : [`number ${unit}`])];
    const matches = new Map<string, Match>();
    for (const word of keys.flatMap((key) => this.#by.get(key) ?? [])) {
      const match = matchWord(written, word, this.#language);
      if (match !== null) matches.set(word.norm, match);
    }
    // Most slips keep the first letter; one that does not is the only one.
    const most = (word: string): number => {
      const edits = allowedEdits(Math.min(norm.length, word.length));
      return word[0] === norm[0] ? edits : Math.min(edits, 1);
    };
    if (mayBeMisspelt && !written.number)
      for (const { word } of this.#near.near(norm, most)) if (!matches.has(word)) matches.set(word, 'misspelt');
    return matches;
  }
}

/**
 * A single letter and the number glued to it ("A5") must be glued in the text too, unless the number is said ("a five");
 * "6x4" may be written "6 x 4".
 */
function gluedAlike(phrase: readonly Token[], text: readonly Token[], index: number, at: number): boolean {
  if (index === 0) return true;
  const [before, token] = [phrase[index - 1]!, phrase[index]!];
  if (before.end !== token.start || before.norm.length !== 1 || before.norm === 'x' || !isNumber(token.norm))
    return true;
  return text[at + index - 1]!.end === text[at + index]!.start || !isNumber(text[at + index]!.norm);
}

/** Written words whose matches are kept: customers use the same ones over and over. */
const MOST_KNOWN = 20_000;
/** Unknown words that are looked for in one text, at most. */
const MOST_UNKNOWN = 40;
const LONGEST_MISSPELT = 30;

const RANK: Record<Match, number> = { exact: 0, inflected: 1, misspelt: 2, computed: 3 };

const NO_MATCHES: WordMatches = new Map();

function matchPhrase(
  phrase: Phrase,
  tokens: readonly Token[],
  matches: readonly WordMatches[],
  at: number,
): Match | null {
  if (at + phrase.tokens.length > tokens.length) return null;
  let worst: Match = 'exact';
  for (let index = 0; index < phrase.tokens.length; index++) {
    const match = matches[at + index]!.get(phrase.tokens[index]!.norm);
    if (match === undefined || (!phrase.turned && !gluedAlike(phrase.tokens, tokens, index, at))) return null;
    if (RANK[match] > RANK[worst]) worst = match;
  }
  return phrase.turned && worst === 'exact' ? 'inflected' : worst;
}

function phraseOf(value: string, said: string): Phrase {
  const { tokens } = tokenise(said);
  return { value, tokens, suffix: alike(said.slice(tokens.at(-1)?.end ?? said.length).trim()) };
}

/** Signs that look alike are typed for each other. */
const alike = (signs: string): string => signs.replace(/[“”″]|''|’’|′′/gu, '"').replace(/[‘’′]/gu, "'");

/** How far the signs that end a phrase reach in the text; -1 where a phrase of figures lacks them there. */
function suffixEnd({ suffix, tokens }: Phrase, text: string, end: number): number {
  if (suffix === '') return end;
  for (let length = suffix.length; length <= 2 * suffix.length; length++)
    if (alike(text.slice(end, end + length)) === suffix) return end + length;
  return tokens.every(({ norm }) => isNumber(norm)) ? -1 : end;
}

const listWord = (norm: string, { spelling }: Language): ListWord => ({
  norm,
  stem: spelling.stem(norm),
  number: isNumber(norm),
});

/** Values of a list with their synonyms: exact, inflected or, where allowed, misspelt. The longest phrase wins. */
export const listFinder: Finder = {
  kinds: ['list'],
  prepare(entity, { language, vocabulary }) {
    const phrases: Phrase[] = (entity.values ?? [])
      .flatMap(({ value, synonyms }) => [value, ...synonyms].map((said) => phraseOf(value, said)))
      .filter((phrase) => phrase.tokens.length > 0);
    const own = new Set(phrases.flatMap((phrase) => phrase.tokens.map((token) => token.norm)));
    const words = new ListWords(own, language);
    const byWords = treeOf([...phrases, ...phrases.flatMap((phrase) => turned(phrase, language))]);
    const known = new Map<string, WordMatches>();

    /** How each word of the list matches a written one. */
    const matchesOf = ({ norm }: Token, tries: Tries): WordMatches => {
      const before = known.get(norm);
      if (before) return before;
      if (known.size >= MOST_KNOWN) known.clear();
      const mayBeMisspelt =
        (entity.misspellings ?? false) &&
        !vocabulary.has(norm) &&
        !own.has(norm) &&
        !language.dictionary.has(norm) &&
        norm.length <= LONGEST_MISSPELT;
      // Of a text of nothing but unknown words, only so many are looked for; what is not looked for is not remembered.
      if (mayBeMisspelt && !tries.take()) return NO_MATCHES;
      const matches = words.matches(norm, { mayBeMisspelt });
      known.set(norm, matches);
      return matches;
    };

    return ({ text, tokens }) => {
      const tries = new Tries(MOST_UNKNOWN);
      const matches = tokens.map((token) => matchesOf(token, tries));
      const found: Found[] = [];
      for (let at = 0; at < tokens.length;) {
        let best: { length: number; match: Match; values: string[]; end: number } | null = null;
        for (const phrase of phrasesFrom(byWords, matches, at)) {
          const length = phrase.tokens.length;
          if ((best && length < best.length) || isVerb(phrase, tokens, at, language)) continue;
          const match = matchPhrase(phrase, tokens, matches, at);
          const end = match === null ? -1 : suffixEnd(phrase, text, tokens[at + length - 1]!.end);
          if (match === null || end < 0) continue;
          if (!best || length > best.length || RANK[match] < RANK[best.match]) {
            best = { length, match, values: [phrase.value], end };
          } else if (RANK[match] === RANK[best.match] && !best.values.includes(phrase.value)) {
            best.values.push(phrase.value);
          }
        }
        if (best) {
          const [value, ...alternatives] = best.values;
          found.push({
            start: tokens[at]!.start,
            end: best.end,
            value: value!,
            match: best.match,
            ...(alternatives.length > 0 ? { alternatives } : {}),
          });
          at += best.length;
        } else at++;
      }
      return found;
    };
  },
};

const MOST_TURNED = 3;
const SHORTEST_TURNED = 3;

/** The same words in every other order: "frame bed" for "bed frame". Little words and figures have their place. */
function turned({ value, tokens, suffix }: Phrase, { numbers }: Language): Phrase[] {
  const movable = tokens.every(
    ({ norm }) => norm.length >= SHORTEST_TURNED && !isNumber(norm) && !numbers.units.has(norm),
  );
  if (!movable || tokens.length < 2 || tokens.length > MOST_TURNED) return [];
  return orders(tokens)
    .filter((order) => order.some((token, index) => token !== tokens[index]))
    .map((order) => ({ value, tokens: order, suffix, turned: true as const }));
}

function orders<Item>(items: readonly Item[]): Item[][] {
  if (items.length < 2) return [[...items]];
  return items.flatMap((item, index) =>
    orders(items.filter((_, other) => other !== index)).map((rest) => [item, ...rest]),
  );
}

/** "I am" names no half of the day. */
const isVerb = ({ tokens: [word, more] }: Phrase, tokens: readonly Token[], at: number, { isVerbAfter }: Language) =>
  word !== undefined && !more && isVerbAfter(tokens[at - 1]?.norm, word.norm);

/** Phrases by their words, one after another. */
interface PhraseTree {
  next: Map<string, PhraseTree>;
  /** Those that end here. */
  ending: Phrase[];
}

function treeOf(phrases: readonly Phrase[]): PhraseTree {
  const root: PhraseTree = { next: new Map(), ending: [] };
  for (const phrase of phrases) {
    let tree = root;
    for (const { norm } of phrase.tokens) {
      let next = tree.next.get(norm);
      if (!next) tree.next.set(norm, (next = { next: new Map(), ending: [] }));
      tree = next;
    }
    tree.ending.push(phrase);
  }
  return root;
}

/** The phrases whose words all match those that begin at a place. */
function* phrasesFrom(tree: PhraseTree, matches: readonly WordMatches[], at: number): Generator<Phrase> {
  yield* tree.ending;
  for (const word of matches[at]?.keys() ?? []) {
    const next = tree.next.get(word);
    if (next) yield* phrasesFrom(next, matches, at + 1);
  }
}
