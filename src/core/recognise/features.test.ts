import { describe, expect, it } from 'vitest';
import { buildVocabulary, countTerms, indexTerms, weighTerms } from './features.js';

const plain = (text: string) => ({ text, masked: text });

describe('terms', () => {
  it('are words, pairs of words and characters within words', () => {
    const terms = countTerms(plain('Red roses'));
    for (const term of ['w:red', 'w:red roses', 'c: r', 'c:ose', 'c:ses ']) expect(terms.has(term), term).toBe(true);
    expect([...terms.keys()].some((term) => term.includes('d r') && term.startsWith('c:'))).toBe(false);
  });

  it('name values by their entity, with the words beside them', () => {
    const terms = countTerms({ text: 'two roses please', masked: '{number} {plant} please' });
    expect([...terms.keys()].filter((term) => term.startsWith('m:')).sort()).toEqual([
      'm:{number}',
      'm:{number} {plant}',
      'm:{plant}',
      'm:{plant} please',
    ]);
  });

  it('that are rare weigh more than common ones', () => {
    const counts = ['a rose', 'a fern', 'a box'].map((text) => countTerms(plain(text)));
    const vocabulary = buildVocabulary(counts);
    const index = indexTerms(vocabulary);
    expect(vocabulary.inverseFrequencies[index.get('w:rose')!]).toBeGreaterThan(
      vocabulary.inverseFrequencies[index.get('w:a')!]!,
    );
  });

  it('that a model does not know are left out, and the rest has length one in words and in characters', () => {
    const vocabulary = buildVocabulary([countTerms(plain('a rose'))]);
    const index = indexTerms(vocabulary);
    const { indices, weights } = weighTerms(countTerms(plain('a rose bush')), vocabulary, index);
    const square = (prefix: string) =>
      [...indices].reduce(
        (sum, term, at) => (vocabulary.terms[term]!.startsWith(prefix) ? sum + weights[at]! ** 2 : sum),
        0,
      );
    expect(square('w:')).toBeCloseTo(1, 10);
    expect(square('c:')).toBeCloseTo(1, 10);
    expect(weighTerms(countTerms(plain('zzz')), vocabulary, index).indices).toHaveLength(0);
  });
});
