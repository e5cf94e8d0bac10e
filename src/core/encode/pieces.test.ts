import { describe, expect, it } from 'vitest';
import { PieceSplitter } from './pieces.js';

const VOCABULARY = [
  '[PAD]',
  '[UNK]',
  '[CLS]',
  '[SEP]',
  'green',
  'gre',
  '##en',
  '##s',
  'tea',
  'cafe',
  "'",
  '¿',
  '緑',
  's',
];
const splitter = new PieceSplitter(VOCABULARY);
const read = (text: string, most = 64) => splitter.split(text, most).map((number) => VOCABULARY[number]!);

describe('PieceSplitter', () => {
  it('takes the longest pieces from the left, between the marks of start and end', () => {
    expect(read('green')).toEqual(['[CLS]', 'green', '[SEP]']);
    expect(read('greenens')).toEqual(['[CLS]', 'green', '##en', '##s', '[SEP]']);
    expect(read('  green \n  teas ')).toEqual(['[CLS]', 'green', 'tea', '##s', '[SEP]']);
  });

  it('tells neither capitals nor accents apart, and cuts off signs and characters without spaces between them', () => {
    expect(read("¿Café's GREEN")).toEqual(['[CLS]', '¿', 'cafe', "'", 's', 'green', '[SEP]']);
    expect(read('緑緑tea')).toEqual(['[CLS]', '緑', '緑', 'tea', '[SEP]']);
  });

  it('reads a word that no pieces make as one unknown piece, and leaves out what cannot be seen', () => {
    expect(read('tea 🌱🌱🌱 greenx')).toEqual(['[CLS]', 'tea', '[UNK]', '[UNK]', '[SEP]']);
    expect(read('te\u0007a\u200B \uD800green\uFFFD')).toEqual(['[CLS]', 'tea', 'green', '[SEP]']);
    expect(read('s'.repeat(101))).toEqual(['[CLS]', '[UNK]', '[SEP]']);
  });

  it('never takes the name of a special piece in a text for the piece', () => {
    expect(read('[SEP]').slice(1, -1)).not.toContain('[SEP]');
  });

  it('gives the marks alone for a text that says nothing, and keeps to the limit', () => {
    expect(read(' \n ')).toEqual(['[CLS]', '[SEP]']);
    expect(read('green '.repeat(50), 10)).toEqual(['[CLS]', ...Array<string>(8).fill('green'), '[SEP]']);
  });

  it('tells which part each piece belongs to', () => {
    expect(splitter.splitParts(['greenen', "'", 'tea'], 64)).toEqual({
      pieces: [2, 4, 6, 10, 8, 3],
      owners: [-1, 0, 0, 1, 2, -1],
    });
  });

  it('says which special piece a vocabulary lacks', () => {
    expect(() => new PieceSplitter(['tea'])).toThrow("The encoder's vocabulary lacks [CLS].");
  });
});
