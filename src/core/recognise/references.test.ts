import { describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import { prepareReader, wordsOf } from './reading.js';

const shop = teaShop((draft) => {
  draft['languages'] = ['en'];
  (draft['entities'] as unknown[]).push(
    { name: 'parcel_no', kind: 'pattern', pattern: 'TS-?\\d{5}' },
    { name: 'gift_card', kind: 'pattern', pattern: 'G\\d{6}' },
    { name: 'code_number', kind: 'pattern', pattern: 'N\\d{4}' },
    { name: 'grade', kind: 'pattern', pattern: 'grade [A-C]\\d' },
  );
  const slots = ['parcel_no', 'gift_card', 'code_number', 'grade'].map((name) => ({
    name,
    entity: name,
    required: true,
    prompts: ['Which?'],
  }));
  (draft['forms'] as unknown[]).push({ name: 'codes', slots });
});
const reader = prepareReader(shop, wordsOf(shop));
const mended = (text: string) => reader.read(text).mended;

describe('a code in a message', () => {
  it.each([
    ['where is TS-20419', 'where is my parcel'],
    ['where has ts20419 got to?', 'where has my parcel got to?'],
    ['parcel TS-20419', 'my parcel'],
    ['my parcel no. TS-20419 is late', 'my parcel is late'],
    ['cancel parcel number: TS-20419', 'cancel my parcel'],
    ['cancel the parcel TS-20419 and TS-20420', 'cancel my parcel and my parcel'],
    ['pay TS-20419 with gift card G123456', 'pay my parcel with my gift card'],
    ['pay with card G123456', 'pay with my gift card'],
  ])('is read as what it is a code of: “%s”', (text, wanted) => {
    expect(mended(text)).toBe(wanted);
  });

  it('is "it" where its entity is not named for anything, and stays where it is a kind of thing', () => {
    expect(mended('where is N4711')).toBe('where is it');
    expect(mended('some grade B2 please')).toBe('some grade B2 please');
  });

  it('is read so in each sentence, with the misspelt words around it put right', () => {
    const text = 'I wnat to know somthing. It is about parcle TS-20419. Where is it?';
    expect(mended(text)).toBe('I want to know something. It is about my parcel. Where is it?');
    expect(reader.read(text).sentences.map((sentence) => sentence.text)).toContain('It is about my parcel');
  });

  it('keeps its own words and places for values', () => {
    const { text, tokens } = reader.read('where is TS-20419');
    expect(text).toBe('where is TS-20419');
    expect(tokens.map((token) => token.text)).toContain('20419');
  });
});
