import { describe, expect, it } from 'vitest';
import { LANGUAGES } from '../language/index.js';
import { prepareSpeller, slips } from './spelling.js';
import { tokenise } from './tokens.js';

const OWN = new Set(['lavender', 'hosta', 'courgettes', 'order', 'plants', 'trellis']);
const speller = prepareSpeller(OWN, LANGUAGES.en);
const mended = (text: string) =>
  tokenise(text)
    .tokens.map((token) => speller.mend(token) ?? token.norm)
    .join(' ');

describe('the dictionary', () => {
  it('knows everyday words, contractions and days, the commoner ones as such', () => {
    for (const word of ['settee', 'recycling', 'colour', 'color', 'dont', 'tuesday', 'cafe'])
      expect(LANGUAGES.en.dictionary.has(word), word).toBe(true);
    expect(LANGUAGES.en.dictionary.get('please')!).toBeLessThan(LANGUAGES.en.dictionary.get('trowel')!);
    expect(LANGUAGES.en.dictionary.has('lavendar')).toBe(false);
  });
});

describe('slips', () => {
  it('are cheaper the usual way round', () => {
    const other = slips('rose', 'rope', 9);
    expect(slips('hapy', 'happy', 9)).toBeLessThan(other);
    expect(slips('definate', 'definite', 9)).toBeLessThan(other);
    expect(slips('recieve', 'receive', 9)).toBeLessThan(other);
    expect(slips('same', 'same', 9)).toBe(0);
  });

  it('above the limit are not counted out', () => {
    expect(slips('rosemary', 'agapanthus', 2)).toBe(Infinity);
  });
});

describe('spelling help', () => {
  it.each([
    ['i wnat to oder too lavendar pls', 'i want to order too lavender please'],
    ['teh plnats havnt arived', 'the plants havent arrived'],
    ['alot of courgetes', 'a lot of courgettes'],
    ['openin times tomorow', 'opening times tomorrow'],
    ['my trelis fell over', 'my trellis fell over'],
  ])('reads "%s" as "%s"', (written, wanted) => {
    expect(mended(written)).toBe(wanted);
  });

  it('takes the bot’s own word before the dictionary’s', () => {
    expect(mended('hoste')).toBe('hosta');
    expect(prepareSpeller(new Set(), LANGUAGES.en).mend(tokenise('hoste').tokens[0]!)).not.toBe('hosta');
  });

  it('leaves words that exist, names, codes and figures alone', () => {
    for (const text of ['settees and wardrobes', 'for Mr Brockbank', 'lm-20418 12st A5', 'constructor'])
      expect(mended(text).replaceAll(' ', '')).toBe(
        tokenise(text)
          .tokens.map(({ norm }) => norm)
          .join(''),
      );
  });

  it('has the bot’s own words alone for a language without a dictionary', () => {
    const german = prepareSpeller(new Set(['bestellung']));
    const read = (word: string) => german.mend(tokenise(word).tokens[0]!);
    expect(read('Bestelung')).toBe('bestellung');
    expect(read('oder')).toBeNull();
    expect(read('pls')).toBeNull();
  });
});
