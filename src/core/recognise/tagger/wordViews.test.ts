import { describe, expect, it } from 'vitest';
import { partsOf, VIEW_LENGTH } from '../../encode/words.js';
import { LANGUAGES } from '../../language/index.js';
import { tokenise } from '../../text/tokens.js';
import { gatherTaught, lookedAt, nearestTaught, viewsOf } from './wordViews.js';

/** A unit vector in the plane of the first two numbers. */
function at(degrees: number): Float32Array {
  const view = new Float32Array(VIEW_LENGTH);
  const angle = (degrees * Math.PI) / 180;
  [view[0], view[1]] = [Math.cos(angle), Math.sin(angle)];
  return view;
}

describe('what the encoder looks at for the taggers', () => {
  it('is the words as they are read, and the signs between them', () => {
    const message = tokenise('“Two, not fuor”, for Anna?');
    message.tokens[2]!.mended = 'four';
    expect(partsOf(lookedAt(message))).toEqual([
      { text: '“', isWord: false },
      { text: 'Two', isWord: true },
      { text: ',', isWord: false },
      { text: 'not', isWord: true },
      { text: 'four', isWord: true },
      { text: '”,', isWord: false },
      { text: 'for', isWord: true },
      { text: 'Anna', isWord: true },
      { text: '?', isWord: false },
    ]);
  });

  it('is nothing where there are no words, and of a long message its first eighty', () => {
    expect(lookedAt(tokenise('?!'))).toBe('');
    expect(partsOf(lookedAt(tokenise('word '.repeat(200))))).toHaveLength(80);
  });
});

describe('how the encoder sees the words of a message', () => {
  const message = tokenise('my hat, please');

  it('is a view for each word in its place', () => {
    const all = Float32Array.from([...at(10), ...at(20), ...at(30)]);
    const views = viewsOf(message, new Map([[lookedAt(message), all]]));
    expect(message.tokens.map((token) => views.get(token))).toEqual([at(10), at(20), at(30)]);
  });

  it('is nothing where the message was not looked at', () => {
    expect(viewsOf(message, new Map()).size).toBe(0);
  });
});

describe('words that a tagger was taught', () => {
  const taught = gatherTaught(
    [
      { word: 'scarf', slot: 0, view: at(0) },
      { word: 'my', slot: 0, view: at(5) },
      { word: 'glove', slot: 0, view: at(10) },
      { word: 'unseen', slot: 0, view: null },
      { word: 'hall', slot: 1, view: at(90) },
    ],
    LANGUAGES.en,
  );
  const nearest = (word: string, degrees: number, slot: number) =>
    nearestTaught(taught, [{ word, view: at(degrees) }], slot, LANGUAGES.en);

  it('are those that tell something and were seen', () => {
    expect([taught.words, taught.slots]).toEqual([
      ['scarf', 'glove', 'hall'],
      [0, 0, 1],
    ]);
  });

  it('are named where a word of the same slot is near to one of them, never a word to itself', () => {
    expect(nearest('hat', 12, 0)).toEqual({ word: 'hat', near: 'glove' });
    expect(nearest('scarf', 2, 0)).toEqual({ word: 'scarf', near: 'glove' });
    expect(nearest('hat', 12, 1)).toBeNull();
    expect(nearest('my', 9, 0)).toBeNull();
  });
});
