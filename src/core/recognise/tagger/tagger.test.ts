import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NO_VECTORS } from '../../encode/encoder.js';
import { VIEW_LENGTH } from '../../encode/words.js';
import { readBotFile } from '../../formats/botFile.js';
import { LANGUAGES } from '../../language/index.js';
import { prepareFinders } from '../finders/index.js';
import { prepareReader, wordsOf } from '../reading.js';
import { openChain, trainChain, VIEW_SCALE } from './crf.js';
import { openTagger, trainTaggers } from './tagger.js';
import { heldOf } from '../../text/named.js';

const BOT = `
reedGate: 1
name: Lost and found
entities:
  - { name: item, kind: free }
  - { name: spot, kind: free }
  - { name: day, kind: date }
intents:
  - name: report_loss
    form: loss
    utterances:
      - 'I left <thing>my grey scarf</thing> in <where>the reading room</where> on <lost>Monday</lost>'
      - 'I have lost <thing>a set of keys</thing> somewhere in <where>the car park</where>'
      - 'did anyone hand in <thing>a blue rucksack</thing>'
      - '<thing>My umbrella</thing> was left at <where>the front desk</where>'
      - 'has <thing>a child’s shoe</thing> been found near <where>the swings</where>'
      - 'I dropped <thing>an earring</thing> by <where>the main stairs</where> <lost>yesterday</lost>'
      - 'left <thing>a book of poems</thing> in <where>the café</where>'
      - 'I think I left <thing>my reading glasses</thing> on <where>the number six bus</where>'
      - 'lost <thing>one leather glove</thing> on <lost>Friday</lost>'
      - 'I put <thing>a parcel</thing> down in <where>the hall</where> and forgot it'
      - 'please look for <thing>a red purse</thing> in <where>the ladies</where>'
      - 'I cannot find <thing>my bus pass</thing>, it was lost on <lost>Tuesday</lost> and I can fetch it on <fetch>Thursday</fetch>'
      - 'lost on <lost>Sunday</lost>, can I fetch it on <fetch>Monday</fetch>'
      - 'I will fetch it <fetch>tomorrow</fetch>, I lost it <lost>last Friday</lost>'
forms:
  - name: loss
    slots:
      - { name: thing, entity: item, required: true, prompts: ['What was it?'] }
      - { name: where, entity: spot, required: false, prompts: ['Where?'] }
      - { name: lost, entity: day, required: false, prompts: ['When?'] }
      - { name: fetch, entity: day, required: false, prompts: ['When will you come?'] }
`;

const file = readBotFile(BOT);
if (!file.ok) throw new Error('the test bot has faults');
const bot = file.document;
const reader = prepareReader(bot, wordsOf(bot));
const findAll = prepareFinders(bot, reader.vocabulary);
const readText = (text: string) => {
  const message = reader.read(text);
  return { message, candidates: findAll(message, '2026-03-04T09:30') };
};
const lesson = { readText, vectors: NO_VECTORS };
const models = trainTaggers(bot, lesson);
const tag = openTagger(heldOf(models, 'loss')!, LANGUAGES.en);
const spansOf = (text: string) => {
  const { message, candidates } = readText(text);
  return tag(message, candidates, NO_VECTORS).spans.map(({ slot, start, end }) => [slot, text.slice(start, end)]);
};

describe('the tagger', () => {
  it.each<[string, [string, string][]]>([
    [
      'I left my walking stick in the chapel',
      [
        ['thing', 'my walking stick'],
        ['where', 'the chapel'],
      ],
    ],
    ['did anyone hand in a silver bracelet', [['thing', 'a silver bracelet']]],
    [
      'I have lost a tartan blanket somewhere in the orchard',
      [
        ['thing', 'a tartan blanket'],
        ['where', 'the orchard'],
      ],
    ],
    [
      'please look for a tin whistle in the cloakroom',
      [
        ['thing', 'a tin whistle'],
        ['where', 'the cloakroom'],
      ],
    ],
  ])('finds values it has never seen in "%s"', (text, wanted) => {
    expect(spansOf(text)).toEqual(wanted);
  });

  it('tells roles of one entity apart by the words around them', () => {
    const text = 'they were lost on Saturday, could I come and fetch them on Wednesday';
    const { message, candidates } = readText(text);
    const tagging = tag(message, candidates, NO_VECTORS);
    const likelihood = (slot: string, start: number, end: number) => tagging.likelihood(slot, start, end);
    const [first, second] = candidates;
    expect(likelihood('lost', first!.start, first!.end)).toBeGreaterThan(likelihood('fetch', first!.start, first!.end));
    expect(likelihood('fetch', second!.start, second!.end)).toBeGreaterThan(
      likelihood('lost', second!.start, second!.end),
    );
  });

  it('never goes beyond a sentence', () => {
    for (const [, words] of spansOf('I left my kite in the park. Is it there? I lost my hat. Thanks.'))
      expect(words).not.toMatch(/[.?]/);
  });

  it('is trained to the same weights every time, and only for forms that need one', () => {
    expect(trainTaggers(bot, lesson)).toEqual(models);
    const plain = { ...bot, forms: [{ ...bot.forms[0]!, slots: [{ ...bot.forms[0]!.slots[2]! }] }] };
    expect(trainTaggers(plain, lesson)).toEqual({});
  });
});

const UNSEEN = [null, null, null, null];

/** A view of which only the first numbers are not zero. */
function seen(...numbers: number[]): Float32Array {
  const view = new Float32Array(VIEW_LENGTH);
  view.set(numbers);
  return view;
}

describe('a chain of labels', () => {
  const model = trainChain(
    [
      { rows: [[1], [2], [3]], views: UNSEEN, labels: [0, 1, 2] },
      { rows: [[1], [1], [2]], views: UNSEEN, labels: [0, 0, 1] },
    ],
    3,
    (before, label) => label !== 2 || before === 1 || before === 2,
  );

  it('takes no step that is not allowed, and its shares add up to one at each word', () => {
    const { labels, shares } = openChain(model).label([[3], [3], [2], [9]], UNSEEN);
    expect(labels[0]).not.toBe(2);
    for (let row = 0; row < 4; row++)
      expect([...shares.subarray(row * 3, row * 3 + 3)].reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 9);
  });

  it('shares likelihood as counting every way of labelling does, and takes the likeliest way', () => {
    const weight = fc.double({ min: -2, max: 2, noNaN: true });
    const weights = (length: number) => fc.array(weight, { minLength: length, maxLength: length });
    fc.assert(
      fc.property(
        fc.record({ weights: weights(6), views: weights(4), transitions: weights(4), starts: weights(2) }),
        fc.array(
          fc.record({
            features: fc.uniqueArray(fc.integer({ min: 1, max: 3 }), { maxLength: 3 }),
            view: fc.option(weights(2)),
          }),
          { minLength: 1, maxLength: 4 },
        ),
        (given, words) => {
          const rows = words.map(({ features }) => features);
          const views = words.map(({ view }) => view && seen(...view));
          const viewWeights = new Float32Array(VIEW_LENGTH * 2);
          viewWeights.set(given.views);
          const chain = {
            size: 2,
            features: Uint32Array.of(1, 2, 3),
            weights: Float32Array.from(given.weights),
            viewWeights,
            transitions: Float32Array.from(given.transitions),
            starts: Float32Array.from(given.starts),
          };
          const scoreOf = (labels: number[]): number =>
            labels.reduce((sum, label, row) => {
              const own = rows[row]!.reduce((total, feature) => total + chain.weights[(feature - 1) * 2 + label]!, 0);
              const view = views[row] ?? [];
              const bySight = viewWeights[label]! * (view[0] ?? 0) + viewWeights[2 + label]! * (view[1] ?? 0);
              const before = labels[row - 1];
              return (
                sum +
                own +
                VIEW_SCALE * bySight +
                (before === undefined ? chain.starts[label]! : chain.transitions[before * 2 + label]!)
              );
            }, 0);
          const ways = Array.from({ length: 2 ** rows.length }, (_, way) => rows.map((__, row) => (way >> row) & 1));
          const likely = ways.map((way) => Math.exp(scoreOf(way)));
          const total = likely.reduce((sum, share) => sum + share, 0);
          const { labels, shares } = openChain(chain).label(rows, views);
          rows.forEach((_, row) => {
            const wanted = ways.reduce((sum, way, at) => sum + (way[row] === 1 ? likely[at]! : 0), 0) / total;
            expect(shares[row * 2 + 1]).toBeCloseTo(wanted, 5);
          });
          expect(scoreOf(labels)).toBeCloseTo(Math.max(...ways.map(scoreOf)), 5);
        },
      ),
    );
  });

  it('learns from how words are seen where nothing else tells them apart', () => {
    const sentence = (...order: number[]) => ({
      rows: order.map(() => [1]),
      views: order.map((label) => seen(label === 1 ? 1 : -1)),
      labels: order,
    });
    const taught = trainChain([sentence(0, 1, 0), sentence(1, 0, 0), sentence(0, 0, 1)], 2, () => true);
    const views = [seen(-0.9), seen(-0.8), seen(0.7), seen(-0.9)];
    expect(openChain(taught).label([[1], [1], [1], [1]], views).labels).toEqual([0, 0, 1, 0]);
  });

  it('labels what it was taught, and nothing in no words', () => {
    expect(openChain(model).label([[1], [2], [3]], UNSEEN).labels).toEqual([0, 1, 2]);
    expect(openChain(model).label([], []).labels).toEqual([]);
  });
});
