import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { languageNamed } from '../language/index.js';
import { seeded } from '../measure/significance.js';
import { NOISES } from './index.js';

const apply = (name: string, text: string, strength = 1, seed = 1) =>
  NOISES.find((noise) => noise.name === name)!.apply(text, strength, seeded(seed), languageNamed('en')!);
const MESSAGE = 'Please could you cancel my order for two lavender, I know it is too late. The delivery was on Friday!';
/** What any of some seeds makes of a text. */
const allOf = (name: string, text: string) => Array.from({ length: 40 }, (_, seed) => apply(name, text, 1, seed));

describe('noises', () => {
  it.each(NOISES.map((noise) => [noise.name, noise] as const))(
    '“%s” is the same by a seed, and nothing at no strength',
    (name) => {
      expect(apply(name, MESSAGE, 1, 5)).toBe(apply(name, MESSAGE, 1, 5));
      expect(apply(name, MESSAGE, 0, 5)).toBe(MESSAGE);
      expect(new Set(allOf(name, MESSAGE)).size).toBeGreaterThan(name === 'no punctuation' ? 0 : 3);
      expect(apply(name, MESSAGE)).not.toBe(MESSAGE);
    },
  );

  it('slip on the keyboard within longer words, and leave the first letter', () => {
    for (const text of allOf('typing', 'delivery to my house')) {
      const [delivery, to, my, house] = text.split(' ');
      expect([delivery![0], to, my, house![0]]).toEqual(['d', 'to', 'my', 'h']);
    }
  });

  it('spell by ear what can be', () => {
    expect(allOf('by ear', 'my phone is too late tonight').join('\n')).toMatch(/fone[^]*to late/);
    expect(allOf('by ear', 'ok')).toEqual(Array(40).fill('ok'));
  });

  it('take the signs away, but not those within a figure', () => {
    expect(apply('no punctuation', 'Hello, it is 3.30 and “fine”. LM-20418?')).toBe(
      'hello it is 3.30 and fine lm-20418',
    );
  });

  it('lose and mistake words in listening, and never all of them', () => {
    expect(allOf('misheard', 'two for the order, please.').join('\n')).toMatch(/to four( the)? border please/);
    expect(allOf('misheard', 'the').every((text) => text === 'the')).toBe(true);
  });

  it('keep the request whole in a story', () => {
    for (const text of allOf('story', 'where is my order')) expect(text).toContain('where is my order');
    expect(apply('story', 'where is my order').length).toBeGreaterThan(40);
  });

  it('take any text', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 80 }), fc.integer({ min: 0, max: 999 }), (text, seed) => {
        for (const noise of NOISES)
          expect(typeof noise.apply(text, 1, seeded(seed), languageNamed('en')!)).toBe('string');
      }),
    );
  });
});
