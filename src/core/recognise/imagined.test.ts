import { describe, expect, it } from 'vitest';
import { VECTOR_LENGTH } from '../encode/encoder.js';
import { imagine, withImagined } from './imagined.js';

/** A vector of length one along one of the axes, or between some. */
function along(...axes: number[]): Float32Array {
  const vector = new Float32Array(VECTOR_LENGTH);
  for (const axis of axes) vector[axis] = 1 / Math.sqrt(axes.length);
  return vector;
}

const VECTORS = new Map([
  ['lost something', along(0)],
  ['lost property', along(0, 1)],
  ['two trays', along(2)],
  ['three trays', along(2, 3)],
  ['a tray', along(2, 4)],
  ['open today', along(5)],
  ['open on sunday', along(5, 6)],
  ['alone', along(7)],
]);
const KNOWN = [
  { text: 'lost something', intent: 'lost' },
  { text: 'lost property', intent: 'lost' },
];
const OTHERS = [
  { text: 'two trays', intent: 'order' },
  { text: 'three trays', intent: 'order' },
  { text: 'a tray', intent: 'order' },
  { text: 'open today', intent: 'hours' },
  { text: 'open on sunday', intent: 'hours' },
  { text: 'alone', intent: 'single' },
];

describe('imagined texts', () => {
  const imagined = imagine(KNOWN, OTHERS, VECTORS);

  it('lie around what is known of their intent, spread as utterances of others are', () => {
    expect(imagined.length).toBeGreaterThan(20);
    for (const { intent, vector } of imagined) {
      expect(intent).toBe('lost');
      expect(Math.hypot(...vector)).toBeCloseTo(1, 5);
      expect(vector[0]).toBeGreaterThan(0.4);
      // An intent with one utterance tells nothing of how utterances differ.
      expect(vector[7]).toBe(0);
    }
    const moved = [2, 3, 4, 5, 6].filter((axis) => imagined.some(({ vector }) => vector[axis] !== 0));
    expect(moved).toEqual([2, 3, 4, 5, 6]);
  });

  it('bear a name that tells all they were made from', () => {
    const byName = new Map<string, number[]>();
    for (const { text, vector } of imagined) {
      expect([...vector]).toEqual(byName.get(text) ?? [...vector]);
      byName.set(text, [...vector]);
    }
    expect(imagine(KNOWN, OTHERS, VECTORS)).toEqual(imagined);
  });

  it('are fewer for each the more intents need them, and none where nothing is taught', () => {
    const many = Array.from({ length: 30 }, (_, index) => ({ text: 'lost something', intent: `lost ${index}` }));
    const shared = imagine(many, OTHERS, VECTORS);
    expect(shared.length).toBeLessThanOrEqual(240);
    expect(new Set(shared.map(({ intent }) => intent)).size).toBe(30);
    expect(imagine(KNOWN, [], VECTORS)).toEqual([]);
    expect(imagine([], OTHERS, VECTORS)).toEqual([]);
  });

  it('stand beside the vectors of the texts that were asked for', () => {
    const vectors = withImagined(['alone', 'unheard'], imagined.slice(0, 1), VECTORS);
    expect([...vectors.keys()]).toEqual(['alone', imagined[0]!.text]);
  });
});
