import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { VECTOR_LENGTH, type Vectors } from '../../encode/encoder.js';
import { LANGUAGES } from '../../language/index.js';
import { packWords, viewOf, WordSimilarities, WordTable, WordViews } from './wordViews.js';

/** A unit vector in the plane of the first two numbers. */
function at(degrees: number): Float32Array {
  const vector = new Float32Array(VECTOR_LENGTH);
  const angle = (degrees * Math.PI) / 180;
  [vector[0], vector[1]] = [Math.cos(angle), Math.sin(angle)];
  return vector;
}

const VECTORS: Vectors = new Map([
  ['scarf', at(0)],
  ['glove', at(10)],
  ['purse', at(20)],
  ['hall', at(90)],
  ['stairs', at(100)],
  ['lost', at(200)],
  ['hat', at(12)],
  ['porch', at(97)],
]);

const GROUPS = new Map([
  ['scarf', new Set([1])],
  ['glove', new Set([1])],
  ['purse', new Set([0, 1])],
  ['hall', new Set([2])],
  ['stairs', new Set([2])],
  ['lost', new Set([0])],
]);

function taughtWords(vectors: Vectors = VECTORS) {
  const similarities = new WordSimilarities();
  similarities.open([...GROUPS.keys()], vectors);
  return similarities.view(GROUPS);
}

const TABLE = new WordTable(packWords([...GROUPS.keys()], VECTORS));

describe('how the encoder sees a word', () => {
  const taught = taughtWords();
  const views = new WordViews(taught, TABLE, LANGUAGES.en);

  it('tells what the nearest taught words were marked as', () => {
    expect(views.of('hat', VECTORS)).toEqual(
      expect.arrayContaining(['vb=1', 'vk=1>1', 'vk=1>2', 'vk=1>3', 'vs=1', 'vo']),
    );
    expect(views.of('porch', VECTORS)).toEqual(expect.arrayContaining(['vb=2', 'vk=2>1', 'vk=2>2', 'vs=2', 'vo']));
  });

  it('counts a word of several groups for each of them', () => {
    expect(views.of('hat', VECTORS)).toContain('vk=0>1');
  });

  it('never takes a word for its own neighbour, so that taught and new words are seen alike', () => {
    const scarf = taught.find(({ word }) => word === 'scarf')!;
    const withoutIt = taught.filter(({ word }) => word !== 'scarf');
    const cosines = withoutIt.map(({ word }) =>
      VECTORS.get(word)!.reduce((sum, value, place) => sum + value * at(0)[place]!, 0),
    );
    expect(scarf.view).toEqual(viewOf('scarf', withoutIt, cosines));
  });

  it('sees nothing without a vector or without taught words', () => {
    expect(views.of('unheard', VECTORS)).toEqual([]);
    expect(new WordViews([], TABLE, LANGUAGES.en).of('hat', VECTORS)).toEqual([]);
    expect(taughtWords(new Map())).toEqual([]);
  });

  it('names the taught word that is nearest, where one is near at all', () => {
    expect(views.nearest(['my', 'hat'], 1, VECTORS)).toEqual({ word: 'hat', near: 'glove' });
    expect(views.nearest(['scarf'], 1, VECTORS)).toEqual({ word: 'scarf', near: 'glove' });
    expect(views.nearest(['hat'], 2, VECTORS)).toBeNull();
  });

  it('is the same whatever the order in which words were asked for', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray([...VECTORS.keys()], { minLength: 1 }), (words) => {
        const fresh = new WordViews(taught, TABLE, LANGUAGES.en);
        for (const word of words) expect(fresh.of(word, VECTORS)).toEqual(views.of(word, VECTORS));
      }),
    );
  });
});

describe('vectors of words in a model', () => {
  it('come back as they went in, without words that have none', () => {
    const packed = packWords(['scarf', 'unheard', 'hall'], VECTORS);
    expect(packed.words).toEqual(['scarf', 'hall']);
    const table = new WordTable(packed);
    expect(['scarf', 'unheard', 'hall'].map((word) => table.has(word))).toEqual([true, false, true]);
    expect(table.vectorOf('hall', new Map())).toEqual(at(90));
    expect(table.vectorOf('unheard', new Map([['unheard', at(3)]]))).toEqual(at(3));
    expect([...table.cosines(at(30), table.placesOf(['hall', 'scarf']))]).toEqual([
      expect.closeTo(0.5, 5),
      expect.closeTo(Math.cos(Math.PI / 6), 5),
    ]);
  });
});
