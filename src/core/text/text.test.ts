import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { closest, editDistance } from './distance.js';
import { mendWords } from './mend.js';
import { NearWords } from './nearWords.js';
import { compilePattern, findPattern, HEAVIEST_PATTERN, PatternError, weightOf } from './pattern.js';
import { isShouted, tidy, tokenAfter, tokenise, tokensWithin } from './tokens.js';

describe('editDistance', () => {
  it.each([
    ['fern', 'fern', 0],
    ['teh', 'the', 1],
    ['lavendar', 'lavender', 1],
    ['hydranja', 'hydrangea', 2],
    ['', 'abc', 3],
  ])('counts %s to %s as %i', (a, b, distance) => {
    expect(editDistance(a, b)).toBe(distance);
  });

  it('is the same both ways', () => {
    fc.assert(
      fc.property(
        fc.string({ maxLength: 12 }),
        fc.string({ maxLength: 12 }),
        (a, b) => editDistance(a, b) === editDistance(b, a),
      ),
    );
  });

  it('says limit + 1 for anything above the limit', () => {
    expect(editDistance('rosemary', 'agapanthus', 2)).toBe(3);
  });
});

describe('NearWords', () => {
  it('finds the words that comparing each one finds, whatever each may be off', () => {
    const word = fc.string({ unit: fc.constantFrom('a', 'b', 'c'), maxLength: 7 });
    fc.assert(
      fc.property(fc.uniqueArray(word, { maxLength: 40 }), word, fc.nat(3), (list, written, most) => {
        const limit = (other: string) => Math.min(most, other.length);
        const near = list
          .map((other) => ({ word: other, edits: editDistance(written, other) }))
          .filter((other) => other.edits <= limit(other.word));
        const found = new NearWords(list).near(written, limit);
        expect(found.sort((a, b) => (a.word < b.word ? -1 : 1))).toEqual(
          near.sort((a, b) => (a.word < b.word ? -1 : 1)),
        );
      }),
      { numRuns: 500 },
    );
  });

  it('finds the one of thousands that are alike', () => {
    const words = Array.from({ length: 5000 }, (_, index) => `valued${index}word`);
    expect(new NearWords(words).near('thyme', () => 2)).toEqual([]);
    expect(new NearWords(words).near('valud17word', () => 1)).toEqual([{ word: 'valued17word', edits: 1 }]);
  });
});

describe('closest', () => {
  it('offers the known name that a typing slip was meant for', () => {
    expect(closest('siz', ['plant', 'size', 'quantity'])).toBe('size');
    expect(closest('quantty', ['plant', 'size', 'quantity'])).toBe('quantity');
  });

  it('offers nothing where nothing is near', () => {
    expect(closest('colour', ['plant', 'size'])).toBeUndefined();
  });
});

describe('tokenise', () => {
  it('keeps offsets into the original text', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 80 }), (text) => {
        for (const token of tokenise(text).tokens) expect(text.slice(token.start, token.end)).toBe(token.text);
      }),
    );
  });

  it('parts letters from digits and folds accents, case and apostrophes', () => {
    expect(tokenise("A5 Café don't 1,500").tokens.map((token) => token.norm)).toEqual([
      'a',
      '5',
      'cafe',
      'dont',
      '1,500',
    ]);
  });
});

describe('mendWords', () => {
  it('leads offsets of the mended text back to the original', () => {
    const text = 'see you tomorow at ten';
    const mended = mendWords(text, tokenise(text).tokens, (token) => (token.norm === 'tomorow' ? 'tomorrow' : null));
    expect(mended.text).toBe('see you tomorrow at ten');
    const start = mended.text.indexOf('tomorrow');
    expect(text.slice(mended.original(start), mended.original(start + 'tomorrow'.length))).toBe('tomorow');
    const ten = mended.text.indexOf('ten');
    expect(text.slice(mended.original(ten), mended.original(ten + 3))).toBe('ten');
  });
});

describe('compilePattern', () => {
  it('refuses what it cannot match in linear time, in a sentence', () => {
    expect(() => compilePattern('(?=a)b')).toThrow(PatternError);
    expect(() => compilePattern('(')).toThrow(/^the pattern "\(" cannot be read: missing closing \): `\(`$/);
  });

  it('refuses a pattern that would match nothing', () => {
    expect(() => compilePattern('\\d*')).toThrow(/matches empty text/);
  });
});

describe('a pattern in a text', () => {
  const found = (text: string, source: string) =>
    findPattern(text, compilePattern(source)).map(({ start, end }) => text.slice(start, end));

  it('is found wherever it stands, once', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(1200), { minLength: 1, maxLength: 6 }), (gaps) => {
        const text = gaps.map((gap, at) => `${'word '.repeat(gap / 5)} LM-${10_000 + at} `).join('');
        expect(found(text, 'LM-\\d{5}')).toEqual(gaps.map((_, at) => `LM-${10_000 + at}`));
      }),
    );
  });

  it('keeps to the borders of the text', () => {
    const text = '12345 '.repeat(300);
    expect(found(text, '^\\d{5}')).toEqual(['12345']);
    expect(found(text.trim(), '\\d{5}$')).toEqual(['12345']);
    expect(found(text, '\\b\\d{5}\\b')).toHaveLength(300);
  });

  it('weighs what it repeats', () => {
    expect(weightOf(compilePattern('[A-Z]{1,2}\\d[A-Z\\d]? ?\\d[A-Z]{2}'))).toBeLessThan(HEAVIEST_PATTERN / 10);
    expect(weightOf(compilePattern('(\\w+\\s*){1,1000}x'))).toBeGreaterThan(HEAVIEST_PATTERN);
  });

  it.each(['\\w(.*x)?', '(.*x|\\w)', '\\w(.*x.*y.*z)?', '\\w([a-z]{1,30}[0-9]{1,30}x)?'])(
    'takes few steps, however often it could be found: %s',
    (source) => {
      // Each match looks to the end of what there is to see: a look through 500 signs costs the weight times 500.
      const pattern = compilePattern(source);
      expect(weightOf(pattern)).toBeLessThan(HEAVIEST_PATTERN);
      const most = Math.ceil(2_000_000 / (weightOf(pattern) * 250)) + 250;
      expect(findPattern('a'.repeat(500), pattern).length).toBeLessThanOrEqual(most);
    },
  );
});

describe('tokens', () => {
  const anyText = fc.string({
    unit: fc.constantFrom('a', 'B', ' ', '.', '7', '’', 'é', '\u00a0', '🌱'),
    maxLength: 40,
  });
  const offset = fc.nat({ max: 45 });

  it('are found by their place in the text', () => {
    fc.assert(
      fc.property(anyText, offset, offset, (text, one, other) => {
        const { tokens } = tokenise(text);
        const [start, end] = [Math.min(one, other), Math.max(one, other)];
        const first = tokens.findIndex((token) => token.end > start);
        expect(tokenAfter(tokens, start)).toBe(first < 0 ? tokens.length : first);
        expect(tokensWithin(tokens, start, end)).toEqual(
          tokens.filter((token) => token.start >= start && token.end <= end),
        );
      }),
    );
  });

  it('of a text in capitals are taken as small, for capitals tell nothing there', () => {
    const shouted = tokenise('WHERE IS MY ORDER');
    expect(shouted.tokens.map(({ text }) => text)).toEqual(['where', 'is', 'my', 'order']);
    expect(tokenise('Ask ANNA for it').tokens.map(({ text }) => text)).toEqual(['Ask', 'ANNA', 'for', 'it']);
    expect(['A3 OK', 'LM-63012', 'DL', '', '1234', 'ÉTÉ'].filter(isShouted)).toEqual([]);
    expect(['HELP', 'CAN YOU HELP?', 'WO IST MEINE TÜR'].filter(isShouted)).toEqual([
      'HELP',
      'CAN YOU HELP?',
      'WO IST MEINE TÜR',
    ]);
  });

  it('have one space between them when tidied', () => {
    expect(tidy('9  Saltpan\u00a0\n Lane')).toBe('9 Saltpan Lane');
  });
});
