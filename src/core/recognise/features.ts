/** A text to learn from or to rank, cut into words. */
export interface ModelText {
  text: string;
  /** Its words as they are compared. */
  words: readonly string[];
  /** The same with each value replaced by its entity ("two {plant}"), so that new values read like known ones. */
  masked: readonly string[];
}

/** Terms of one text, rising, with how often each occurs. A term is a number that stands for an n-gram. */
export interface TermCounts {
  terms: Uint32Array;
  counts: Uint16Array;
}

/** The terms a model knows, rising, with their inverse document frequencies. Plain data. */
export interface Vocabulary {
  terms: Uint32Array;
  inverseFrequencies: Float32Array;
}

/** Term weights of one text: places in the vocabulary in rising order with their weights. */
export interface SparseVector {
  indices: Int32Array;
  weights: Float64Array;
}

const SHORTEST_GRAM = 2;
const LONGEST_GRAM = 5;
const LONGEST_TEXT_WORDS = 400;
const LONGEST_WORD = 40;
/** How much words, characters and masked values count, each group scaled to length one before. */
const GROUP_WEIGHTS = [1, 0.8, 0.7] as const;
const [WORDS, CHARACTERS, VALUES] = [0, 1, 2] as const;
const SPACE = 32;

/** One step of the hash FNV-1a (Fowler, Noll and Vo, 1991). */
const hashOn = (hash: number, code: number): number => Math.imul(hash ^ code, 0x01000193);

const START = 0x811c9dc5;

function hashWord(word: string, hash = START): number {
  for (let at = 0; at < word.length; at++) hash = hashOn(hash, word.charCodeAt(at));
  return hash;
}

/** Spreads a hash over all 32 bits (the finaliser of MurmurHash3, Appleby, 2011); the last two tell the group. */
function finish(hash: number, group: number): number {
  hash ^= hash >>> 16;
  hash = Math.imul(hash, 0x85ebca6b);
  hash ^= hash >>> 13;
  hash = Math.imul(hash, 0xc2b2ae35);
  hash ^= hash >>> 16;
  return ((hash & ~3) | group) >>> 0;
}

/** The characters within one word, the spaces around it counted. */
function visitCharacters(word: string, add: (term: number) => void): void {
  const length = Math.min(word.length, LONGEST_WORD) + 2;
  const code = (at: number) => (at === 0 || at === length - 1 ? SPACE : word.charCodeAt(at - 1));
  for (let start = 0; start + SHORTEST_GRAM <= length; start++) {
    let hash = START;
    for (let size = 1; size <= LONGEST_GRAM && start + size <= length; size++) {
      hash = hashOn(hash, code(start + size - 1));
      if (size >= SHORTEST_GRAM) add(finish(hash, CHARACTERS));
    }
  }
}

/**
 * Tells every term of a text: words and pairs of words, characters within words, and values by their entity with the
 * words beside them.
 * @param add is told the term and the places of its first and last word: in `words`, or in `masked` for values
 */
export function visitTerms(
  { words, masked }: ModelText,
  add: (term: number, from: number, to: number, of: 'words' | 'masked') => void,
): void {
  const until = Math.min(words.length, LONGEST_TEXT_WORDS);
  for (let at = 0; at < until; at++) {
    const word = words[at]!;
    add(finish(hashWord(word), WORDS), at, at, 'words');
    if (at > 0) add(finish(hashWord(word, hashOn(hashWord(words[at - 1]!), SPACE)), WORDS), at - 1, at, 'words');
    visitCharacters(word, (term) => add(term, at, at, 'words'));
  }
  const end = Math.min(masked.length, LONGEST_TEXT_WORDS);
  for (let at = 0; at < end; at++) {
    const isValue = masked[at]!.startsWith('{');
    if (isValue) add(finish(hashWord(masked[at]!), VALUES), at, at, 'masked');
    const before = masked[at - 1];
    if (before !== undefined && (isValue || before.startsWith('{'))) {
      add(finish(hashWord(masked[at]!, hashOn(hashWord(before), SPACE)), VALUES), at - 1, at, 'masked');
    }
  }
}

export function countTerms(text: ModelText): TermCounts {
  const all: number[] = [];
  visitTerms(text, (term) => all.push(term));
  const sorted = Uint32Array.from(all).sort();
  const terms = new Uint32Array(sorted.length);
  const counts = new Uint16Array(sorted.length);
  let size = 0;
  for (const term of sorted) {
    if (size > 0 && terms[size - 1] === term) counts[size - 1]!++;
    else {
      terms[size] = term;
      counts[size++] = 1;
    }
  }
  return { terms: terms.slice(0, size), counts: counts.slice(0, size) };
}

/** Collects the terms of a set of texts. Inverse frequencies are smoothed: ln((1 + n) / (1 + df)) + 1. */
export function buildVocabulary(texts: readonly TermCounts[]): Vocabulary {
  const all = new Uint32Array(texts.reduce((sum, { terms }) => sum + terms.length, 0));
  let end = 0;
  for (const { terms } of texts) {
    all.set(terms, end);
    end += terms.length;
  }
  all.sort();
  const terms = new Uint32Array(all.length);
  const inverseFrequencies = new Float32Array(all.length);
  let size = 0;
  for (let at = 0; at < all.length; size++) {
    const from = at;
    while (at < all.length && all[at] === all[from]) at++;
    terms[size] = all[from]!;
    inverseFrequencies[size] = Math.log((1 + texts.length) / (1 + at - from)) + 1;
  }
  return { terms: terms.slice(0, size), inverseFrequencies: inverseFrequencies.slice(0, size) };
}

/** Looks terms up. */
export interface TermIndex {
  /** The place of a term in the vocabulary; -1 if it is not there. */
  find(term: number): number;
}

/** A hash table with open addressing; the terms are hashes themselves, and each stands beside its place. */
export function indexTerms({ terms }: Vocabulary): TermIndex {
  const size = 2 ** Math.ceil(Math.log2(terms.length * 2 + 2));
  // Of each slot the term, and its place counted from 1; 0 where the slot is free.
  const slots = new Uint32Array(2 * size);
  const first = (term: number) => (term >>> 2) & (size - 1);
  terms.forEach((term, place) => {
    let slot = first(term);
    while (slots[2 * slot + 1] !== 0) slot = (slot + 1) & (size - 1);
    slots[2 * slot] = term;
    slots[2 * slot + 1] = place + 1;
  });
  return {
    find(term) {
      for (let slot = first(term); ; slot = (slot + 1) & (size - 1)) {
        const place = slots[2 * slot + 1]!;
        if (place === 0 || slots[2 * slot] === term) return place - 1;
      }
    },
  };
}

/**
 * TF-IDF with sublinear counts (1 + ln count); words, characters and values are each scaled to a length of their own
 * (Salton and Buckley, 1988). Terms outside the vocabulary are left out.
 */
export function weighTerms({ terms, counts }: TermCounts, vocabulary: Vocabulary, index: TermIndex): SparseVector {
  const indices = new Int32Array(terms.length);
  const weights = new Float64Array(terms.length);
  const squares = [0, 0, 0];
  let size = 0;
  for (let at = 0; at < terms.length; at++) {
    const place = index.find(terms[at]!);
    if (place === -1) continue;
    const weight = (1 + Math.log(counts[at]!)) * vocabulary.inverseFrequencies[place]!;
    squares[terms[at]! & 3]! += weight * weight;
    indices[size] = place;
    weights[size++] = weight;
  }
  const scales = GROUP_WEIGHTS.map((weight, group) => weight / Math.sqrt(squares[group]!));
  for (let at = 0; at < size; at++) weights[at]! *= scales[vocabulary.terms[indices[at]!]! & 3]!;
  return { indices: indices.slice(0, size), weights: weights.slice(0, size) };
}
