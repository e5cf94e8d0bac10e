import { beforeAll, describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import { encoderFolder } from '../../server/encoder/files.js';
import { loadEncoder } from '../../server/encoder/load.js';
import { writeMarking } from '../bot/marking.js';
import { encodeTexts, NO_VECTORS } from '../encode/encoder.js';
import type { Explanation } from './explain.js';
import { openRecogniser } from './open.js';
import { prepareTraining } from './train.js';

const NOW = '2026-03-04T09:30';

describe('an explanation', () => {
  const shop = teaShop((draft) => (draft['languages'] = ['en']));
  let read: (text: string) => Promise<Explanation>;

  beforeAll(async () => {
    const encoder = await loadEncoder(encoderFolder());
    const recogniser = openRecogniser(
      shop,
      prepareTraining(shop).train(await encodeTexts(encoder, prepareTraining(shop).texts)),
    );
    read = async (text) => recogniser.explain(text, await encodeTexts(encoder, recogniser.textsToExplain(text)), NOW);
  });

  it('tells which words speak for the first intent, each by what is lost without it', async () => {
    const { recognition, words } = await read('could I cancel the thing I asked for');
    expect(recognition.ranking[0]!.intent).toBe('cancel_order');
    const strongest = [...words].sort((a, b) => b.weight - a.weight)[0]!;
    expect(strongest.text).toBe('cancel');
    expect(strongest.weight).toBeGreaterThan(0.5);
  });

  it('names the three nearest utterances, nearest first, the same text being wholly near', async () => {
    const utterance = shop.intents[1]!.utterances[0]!;
    const { nearest } = await read(utterance.text);
    expect(nearest).toHaveLength(3);
    // As an act names it that moves it.
    const named = { utterance: utterance.id, text: utterance.text, marked: writeMarking(utterance) };
    expect(nearest[0]).toMatchObject({ intent: shop.intents[1]!.name, ...named });
    expect(nearest[0]!.similarity).toBeCloseTo(1, 2);
    expect(nearest[1]!.similarity).toBeLessThanOrEqual(nearest[0]!.similarity);
  });

  it('tells what the spelling help changed, why a slot was taken and why a value was not', async () => {
    const { recognition } = await read('plese two packets of green tea, no, mint tea');
    expect(recognition.mendings).toMatchObject([{ text: 'plese', to: 'please' }]);
    expect(recognition.slots.find(({ slot }) => slot === 'tea')).toMatchObject({
      text: 'mint tea',
      why: /value of tea/,
    });
    expect(recognition.passedOver).toEqual(
      expect.arrayContaining([
        expect.objectContaining({ text: 'green tea', why: '“green tea” is taken back for “mint tea”' }),
      ]),
    );
  });
});

describe('an explanation without an encoder', () => {
  it('rests on the words alone', () => {
    const shop = teaShop();
    const recogniser = openRecogniser(shop, prepareTraining(shop).train(new Map()));
    expect(recogniser.textsToExplain('cancel my order')).toEqual([]);
    const { words, nearest } = recogniser.explain('cancel my order please', NO_VECTORS, NOW);
    expect(words).toHaveLength(4);
    expect(nearest[0]!.intent).toBe('cancel_order');
  });

  it('of no words, or one, has nothing to leave out', () => {
    const shop = teaShop();
    const recogniser = openRecogniser(shop, prepareTraining(shop).train(new Map()));
    for (const text of ['', 'cancel']) expect(recogniser.explain(text, NO_VECTORS, NOW).words).toEqual([]);
  });
});
