import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { buildVocabulary, countTerms, indexTerms, visitTerms, weighTerms, type ModelText } from './features.js';

const read = (text: string, masked = text): ModelText => ({
  text,
  words: text.split(' '),
  masked: masked.split(' '),
});

/** Terms of a text by the words they stand for. */
function termsOf(text: ModelText): { term: number; words: string }[] {
  const terms: { term: number; words: string }[] = [];
  visitTerms(text, (term, from, to, of) => terms.push({ term, words: text[of].slice(from, to + 1).join(' ') }));
  return terms;
}

describe('terms', () => {
  it('are words, pairs of words and characters within words', () => {
    const words = termsOf(read('red roses')).map((item) => item.words);
    // 'red' with the spaces around it has 4 + 3 + 2 + 1 stretches of two to five characters, 'roses' 6 + 5 + 4 + 3.
    expect(words.filter((word) => word === 'red')).toHaveLength(1 + 10);
    expect(words.filter((word) => word === 'roses')).toHaveLength(1 + 18);
    expect(words.filter((word) => word === 'red roses')).toHaveLength(1);
  });

  it('name values by their entity, with the words beside them', () => {
    const plain = new Set(termsOf(read('two roses please')).map(({ term }) => term));
    const masked = termsOf(read('two roses please', '{number} {plant} please')).filter(({ term }) => !plain.has(term));
    expect(masked.map(({ words }) => words)).toEqual(['{number}', '{plant}', '{number} {plant}', '{plant} please']);
  });

  it('are the same wherever the same characters stand, and different ones differ', () => {
    const term = (text: string) => termsOf(read(text))[0]!.term;
    expect(termsOf(read('a rose')).some((item) => item.term === term('rose'))).toBe(true);
    fc.assert(
      fc.property(fc.string({ minLength: 1 }), fc.string({ minLength: 1 }), (one, other) => {
        const [first, second] = [one, other].map((word) => termsOf({ text: word, words: [word], masked: [] })[0]!.term);
        expect(first === second).toBe(one === other);
      }),
    );
  });

  it('that are rare weigh more than common ones', () => {
    const vocabulary = buildVocabulary(['a rose', 'a fern', 'a box'].map((text) => countTerms(read(text))));
    const index = indexTerms(vocabulary);
    const weight = (word: string) => vocabulary.inverseFrequencies[index.find(termsOf(read(word))[0]!.term)]!;
    expect(weight('rose')).toBeGreaterThan(weight('a'));
  });

  it('that a model does not know are left out, and the rest has the length of its group in words and in characters', () => {
    const known = read('a rose');
    const vocabulary = buildVocabulary([countTerms(known)]);
    const index = indexTerms(vocabulary);
    const { indices, weights } = weighTerms(countTerms(read('a rose bush')), vocabulary, index);
    const square = (group: number) =>
      [...indices].reduce(
        (sum, place, at) => ((vocabulary.terms[place]! & 3) === group ? sum + weights[at]! ** 2 : sum),
        0,
      );
    expect(square(0)).toBeCloseTo(1, 10);
    expect(square(1)).toBeCloseTo(0.8 ** 2, 10);
    expect(weighTerms(countTerms(read('zzz')), vocabulary, index).indices).toHaveLength(0);
  });
});
