import { describe, expect, it } from 'vitest';
import { PieceSplitter, type Piece } from './pieces.js';

const VOCABULARY: Piece[] = [
  ['<s>', 0],
  ['<pad>', 0],
  ['</s>', 0],
  ['<unk>', 0],
  ['▁green', -3],
  ['▁', -2],
  ['green', -3],
  ['▁gre', -2.5],
  ['en', -2.5],
  ['▁tea', -4],
  ['s', -1],
];
const splitter = new PieceSplitter(VOCABULARY);
const read = (text: string, most = 64) => splitter.split(text, most).map((number) => VOCABULARY[number]![0]);

describe('PieceSplitter', () => {
  it('chooses the likeliest pieces, not the first that fit, between the marks of start and end', () => {
    expect(read('green')).toEqual(['<s>', '▁green', '</s>']);
    expect(read('greenen')).toEqual(['<s>', '▁green', 'en', '</s>']);
  });

  it('puts a mark before the text and for each space', () => {
    expect(read('  green \n  teas ')).toEqual(['<s>', '▁green', '▁tea', 's', '</s>']);
  });

  it('reads a run of unknown characters as one piece', () => {
    expect(read('tea 🌱🌱🌱')).toEqual(['<s>', '▁tea', '▁', '<unk>', '</s>']);
    expect(read('\uD800green')).toContain('<unk>');
  });

  it('never takes the name of a special piece in a text for the piece', () => {
    expect(read('</s>').slice(1, -1)).not.toContain('</s>');
  });

  it('gives the marks alone for a text that says nothing, and keeps to the limit', () => {
    expect(read(' \n ')).toEqual(['<s>', '</s>']);
    expect(read('green '.repeat(50), 10)).toEqual(['<s>', ...Array<string>(8).fill('▁green'), '</s>']);
  });

  it('says which special piece a vocabulary lacks', () => {
    expect(() => new PieceSplitter([['tea', -1]])).toThrow("The encoder's vocabulary lacks <s>.");
  });
});
