import { describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import { NO_VECTORS } from '../encode/encoder.js';
import { openRecogniser } from '../recognise/open.js';
import { prepareTraining } from '../recognise/train.js';
import { measure, measureHeldOut, readLine, taughtMessages, type LineResult } from './evaluate.js';
import { shareInterval } from './interval.js';

const NOW = '2026-03-04T09:30';
const shopWith = (lines: string[]) =>
  teaShop((draft) => {
    (draft['intents'] as { utterances: string[] }[])[0]!.utterances.push(...lines);
  });

describe('held-out figures', () => {
  it('hold a line that stands twice out together, so that it gains nothing from itself', () => {
    const odd = 'zebra quokka ibis';
    const own = (lines: string[]) =>
      prepareTraining(shopWith(lines))
        .train(NO_VECTORS)
        .heldOut.find(({ text }) => text === lines[0])!.ownConfidence;
    expect(own([odd, odd])).toBeLessThan(own([odd]) + 0.1);
    expect(own([odd, 'Zebra, quokka ibis!'])).toBeLessThan(own([odd]) + 0.1);
  });

  it('come with the bounds that they may lie between', () => {
    const { interval } = measureHeldOut(
      Array.from({ length: 20 }, (_, index) => ({ intent: 'a', predicted: index < 15 ? 'a' : 'b' })),
      ['a', 'b'],
    );
    expect(interval).toEqual({
      share: 0.75,
      low: expect.closeTo(0.531, 2) as number,
      high: expect.closeTo(0.888, 2) as number,
    });
    expect(shareInterval(0, 0)).toBeNull();
    expect(shareInterval(3, 3)).toMatchObject({ share: 1, high: 1 });
  });
});

describe('a test run', () => {
  const line = (expected: string | null, predicted: string, decision: LineResult['decision']): LineResult => ({
    text: 'x',
    expected,
    predicted,
    decision,
    confidence: decision === 'accept' ? 0.9 : 0.4,
    place: expected === predicted ? 1 : null,
    expectedSlots: null,
    slots: [],
  });

  it('counts what is out of scope against the intent that takes it, and gives it a row', () => {
    const { intents, confusion, calibrationError, calibrationErrorOverall } = measure(
      [
        line('a', 'a', 'accept'),
        ...Array.from({ length: 9 }, () => line(null, 'a', 'accept')),
        line(null, 'a', 'none'),
      ],
      ['a', 'b'],
    );
    expect(intents[0]).toMatchObject({ intent: 'a', support: 1, predicted: 10, precision: 0.1, recall: 1 });
    expect(confusion.labels).toEqual(['a', '(out of scope)', 'b']);
    expect(confusion.counts[1]).toEqual([9, 1, 0]);
    expect(calibrationError).toBeCloseTo(0.1);
    expect(calibrationErrorOverall).toBeGreaterThan(0.7);
  });

  it('marks a line that was also taught and leaves it out of every figure', () => {
    const shop = shopWith([]);
    const recogniser = openRecogniser(shop, prepareTraining(shop).train(NO_VECTORS));
    const taught = taughtMessages(shop);
    const results = ['Order some tea!', 'tea for two'].map((text) =>
      readLine(recogniser, { text, intent: 'order_tea' }, NO_VECTORS, { now: NOW, taught }),
    );
    expect(results.map((result) => result.taught ?? false)).toEqual([true, false]);
    expect(measure(results, ['order_tea'])).toMatchObject({ lines: 1, inScope: 1, taught: 1 });
  });
});

describe('a small bot', () => {
  it.each([0, 1, 3, 5])('with one intent of %i utterances acts on nothing but what it was taught', (count) => {
    const shop = teaShop((draft) => {
      const [first] = draft['intents'] as { utterances: string[]; description?: string }[];
      draft['intents'] = [{ ...first!, utterances: first!.utterances.slice(0, count) }];
    });
    const recogniser = openRecogniser(shop, prepareTraining(shop).train(NO_VECTORS));
    for (const text of ['Sue', 'Friday', 'qwerty', 'Jo Bell', '123', 'what is the capital of peru', 'hello there'])
      expect(recogniser.recognise(text, NO_VECTORS, NOW).decision, text).not.toBe('accept');
  });

  it('knows what it was taught, whatever its values', () => {
    const shop = shopWith([]);
    const recogniser = openRecogniser(shop, prepareTraining(shop).train(NO_VECTORS));
    const sure = (text: string) => recogniser.recognise(text, NO_VECTORS, NOW).confidence;
    expect(sure('please send me 9 small green tea')).toBeGreaterThan(sure('something to drink for my aunt'));
    expect(sure('please send me 9 small green tea')).toBeGreaterThan(0.5);
  });
});
