import { describe, expect, it } from 'vitest';
import { PieceSplitter, type Piece } from './pieces.js';

const reserved: Piece[] = Array.from({ length: 6 }, (_, index) => [`<${index}>`, 0]);
const splitter = new PieceSplitter([
  ...reserved,
  ['▁green', -3],
  ['▁', -2],
  ['green', -3],
  ['▁gre', -2.5],
  ['en', -2.5],
  ['▁tea', -4],
  ['s', -1],
]);

describe('PieceSplitter', () => {
  it('chooses the best-scoring pieces, not the first that fit', () => {
    expect(splitter.split('green')).toEqual([6]);
  });

  it('puts a mark before the text and for each space', () => {
    expect(splitter.split('green teas')).toEqual([6, 11, 12]);
    expect(splitter.split('  green   teas ')).toEqual([6, 11, 12]);
  });

  it('collapses a run of unknown characters to one', () => {
    expect(splitter.split('tea 🌱🌱🌱')).toEqual([11, 7, 0]);
  });

  it('gives nothing for empty text and keeps to the limit', () => {
    expect(splitter.split(' \n ')).toEqual([]);
    expect(splitter.split('green '.repeat(50), 10)).toHaveLength(10);
  });

  it('does not stumble over lone surrogates', () => {
    expect(splitter.split('\uD800green')).toContain(0);
  });
});
