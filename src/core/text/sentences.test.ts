import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LANGUAGES } from '../language/index.js';
import { askingWeight, sentencesOf } from './sentences.js';

const cut = (text: string) => sentencesOf(text).map(({ start, end }) => text.slice(start, end));

describe('sentences', () => {
  it.each<[string, string[]]>([
    ['one only', ['one only']],
    ['It came. It died! Why?', ['It came.', 'It died!', 'Why?']],
    ['first line\nsecond line', ['first line', 'second line']],
    ['my roses - the red ones', ['my roses', 'the red ones']],
    ['at 2.30 for £4.50', ['at 2.30 for £4.50']],
    ['', []],
    [' \n ', []],
  ])('of "%s"', (text, wanted) => {
    expect(cut(text)).toEqual(wanted);
  });

  it('hold every letter of the text, in order', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 80 }), (text) => {
        expect(
          cut(text)
            .join('')
            .replace(/[\s\-–—]/gu, ''),
        ).toBe(text.replace(/[\s\-–—]/gu, ''));
      }),
    );
  });
});

describe('asking', () => {
  it('weighs a question most, then a request, then what only tells', () => {
    const [question, request, tells] = ['Is the shop open?', 'I would like two roses.', 'My aunt came to stay.'].map(
      (sentence) => askingWeight(sentence, LANGUAGES.en),
    );
    expect(question!).toBeGreaterThan(request!);
    expect(request!).toBeGreaterThan(tells!);
  });
});
