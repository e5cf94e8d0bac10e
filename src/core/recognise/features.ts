import { foldWord, tokenise } from '../text/tokens.js';

/** Term weights of one text: feature numbers in rising order with their weights. */
export interface SparseVector {
  indices: Int32Array;
  weights: Float64Array;
}

/** The n-grams a model knows, with their inverse document frequencies. Plain data. */
export interface Vocabulary {
  terms: string[];
  inverseFrequencies: Float64Array;
}

const SHORTEST_GRAM = 2;
const LONGEST_GRAM = 5;
const LONGEST_TEXT_WORDS = 400;
/** How much words, characters and masked values count, each group scaled to length one before. */
const GROUP_WEIGHTS = [1, 1, 0.6] as const;

/** A text to learn from or to rank. */
export interface ModelText {
  text: string;
  /** The same with values replaced by their entities ("two {plant}"), so that new values read like known ones. */
  masked: string;
}

/** Words and pairs of the words of a text, masked values being words of their own. */
function countMasked(masked: string, add: (term: string) => void): void {
  const words = [...masked.matchAll(/\{[^{}]+\}|[\p{L}\p{M}]+(?:['’]\p{L}+)*|\p{N}+/gu)].slice(0, LONGEST_TEXT_WORDS);
  words.forEach(([word], index) => {
    const folded = word.startsWith('{') ? word : foldWord(word);
    if (word.startsWith('{')) add(`m:${word}`);
    const before = words[index - 1]?.[0];
    if (before !== undefined && (word.startsWith('{') || before.startsWith('{'))) {
      add(`m:${before.startsWith('{') ? before : foldWord(before)} ${folded}`);
    }
  });
}

/**
 * Words and pairs of words (prefix `w:`), characters within words (`c:`), and values by their entity with the words
 * beside them (`m:`), with their counts.
 */
export function countTerms({ text, masked }: ModelText): Map<string, number> {
  const counts = new Map<string, number>();
  const add = (term: string) => counts.set(term, (counts.get(term) ?? 0) + 1);
  countMasked(masked, add);
  const words = tokenise(text)
    .tokens.slice(0, LONGEST_TEXT_WORDS)
    .map((token) => token.norm);
  words.forEach((word, index) => {
    add(`w:${word}`);
    if (index > 0) add(`w:${words[index - 1]!} ${word}`);
    const padded = ` ${word.slice(0, 40)} `;
    for (let length = SHORTEST_GRAM; length <= LONGEST_GRAM; length++) {
      for (let start = 0; start + length <= padded.length; start++) add(`c:${padded.slice(start, start + length)}`);
    }
  });
  return counts;
}

/** Collects the terms of a set of texts. Inverse frequencies are smoothed: ln((1 + n) / (1 + df)) + 1. */
export function buildVocabulary(texts: readonly Map<string, number>[]): Vocabulary {
  const frequencies = new Map<string, number>();
  for (const terms of texts) for (const term of terms.keys()) frequencies.set(term, (frequencies.get(term) ?? 0) + 1);
  const terms = [...frequencies.keys()].sort();
  return {
    terms,
    inverseFrequencies: Float64Array.from(
      terms,
      (term) => Math.log((1 + texts.length) / (1 + frequencies.get(term)!)) + 1,
    ),
  };
}

/** Looks terms up by text. */
export type TermIndex = ReadonlyMap<string, number>;

export function indexTerms(vocabulary: Vocabulary): TermIndex {
  return new Map(vocabulary.terms.map((term, index) => [term, index]));
}

/**
 * TF-IDF with sublinear counts (1 + ln count); words, characters and values are each scaled to a length of their own
 * (Salton and Buckley, 1988). Terms outside the vocabulary are left out.
 */
export function weighTerms(counts: Map<string, number>, vocabulary: Vocabulary, index: TermIndex): SparseVector {
  const found: { at: number; weight: number; group: 0 | 1 | 2 }[] = [];
  const squares: [number, number, number] = [0, 0, 0];
  for (const [term, count] of counts) {
    const at = index.get(term);
    if (at === undefined) continue;
    const weight = (1 + Math.log(count)) * vocabulary.inverseFrequencies[at]!;
    const group = term.startsWith('w:') ? 0 : term.startsWith('c:') ? 1 : 2;
    squares[group] += weight * weight;
    found.push({ at, weight, group });
  }
  found.sort((a, b) => a.at - b.at);
  return {
    indices: Int32Array.from(found, (item) => item.at),
    weights: Float64Array.from(
      found,
      (item) => (GROUP_WEIGHTS[item.group] * item.weight) / Math.sqrt(squares[item.group]),
    ),
  };
}
