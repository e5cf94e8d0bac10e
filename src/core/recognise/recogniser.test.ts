import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { utterances } from '../../../tests/rows.js';
import { teaShop } from '../../../tests/teaShop.js';
import { encoderFolder } from '../../server/encoder/files.js';
import { loadEncoder } from '../../server/encoder/load.js';
import { encodeTexts, NO_VECTORS, type Encoder, type Vectors } from '../encode/encoder.js';
import { decide } from './gate.js';
import { openRecogniser, type Recogniser } from './open.js';
import { prepareTraining, TrainingMemory } from './train.js';

const NOW = '2026-03-04T09:30';
const english = () => teaShop((draft) => (draft['languages'] = ['en']));

describe('the recogniser without an encoder', () => {
  const shop = teaShop();
  const model = prepareTraining(shop).train(new Map());
  const recogniser = openRecogniser(shop, model);

  it('asks for no vectors', () => {
    expect(prepareTraining(shop).texts).toEqual([]);
    expect(model.encoded).toBe(false);
  });

  it('recognises a sentence that is not among the utterances', () => {
    const recognition = recogniser.recognise('could I order four packets of breakfast tea', NO_VECTORS, NOW);
    expect(recognition.ranking[0]!.intent).toBe('order_tea');
    expect(recognition.slots.map(({ slot, text, value }) => [slot, text, value])).toEqual([
      ['amount', 'four', 4],
      ['tea', 'breakfast tea', 'black tea'],
    ]);
  });

  it('ranks every intent, best first, with probabilities that leave room for what lies outside', () => {
    const { ranking } = recogniser.recognise('what is the weather in Peru', NO_VECTORS, NOW);
    expect(ranking).toHaveLength(3);
    expect(ranking.map(({ confidence }) => confidence)).toEqual(
      ranking.map(({ confidence }) => confidence).sort((a, b) => b - a),
    );
    expect(ranking.reduce((sum, { confidence }) => sum + confidence, 0)).toBeLessThan(1);
  });

  it('reads any text without a fault, with offsets into it', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 80 }), (text) => {
        const recognition = recogniser.recognise(text, NO_VECTORS, NOW);
        for (const slot of recognition.slots) expect(text.slice(slot.start, slot.end)).toBe(slot.text);
        for (const { start, end, text: words } of recognition.mendings) expect(text.slice(start, end)).toBe(words);
        for (const value of recognition.passedOver) expect(text.slice(value.start, value.end)).toBe(value.text);
        for (const { confidence } of recognition.ranking) expect(confidence >= 0 && confidence <= 1).toBe(true);
      }),
      { numRuns: 60 },
    );
    const odd = [
      '',
      'x'.repeat(10_000),
      ' '.repeat(10_000),
      '7'.repeat(1000),
      '<script>alert(1)</script>',
      'مرحبا',
      '\uD83D',
      '\u0000\u0007',
      '😀'.repeat(3000),
      'wnat oder lavendr '.repeat(500),
    ];
    for (const text of odd) {
      expect(() => recogniser.recognise(text, NO_VECTORS, NOW)).not.toThrow();
    }
  });

  it('scores each utterance by a model that had not learned from it', () => {
    expect(model.heldOut).toHaveLength(17);
    expect(model.heldOut.map((item) => item.intent)).not.toContain(undefined);
    const withTwin = teaShop((draft) =>
      (draft['intents'] as { utterances: string[] }[])[1]!.utterances.push('zebra crossing umbrella'),
    );
    const alone = prepareTraining(withTwin)
      .train(new Map())
      .heldOut.find((item) => item.text.startsWith('zebra'))!;
    const taught = openRecogniser(withTwin, prepareTraining(withTwin).train(new Map())).recognise(
      'zebra crossing umbrella',
      NO_VECTORS,
      NOW,
    );
    expect(taught.ranking[0]!.intent).toBe('opening_hours');
    expect(alone.ownConfidence).toBeLessThan(taught.ranking[0]!.confidence);
  });

  it('is trained to the same model every time', () => {
    expect(prepareTraining(shop).train(new Map())).toEqual(model);
  });

  it.each([
    ['a few are', 3100],
    ['most are', 6100],
  ])('learns an even share of too many utterances and scores the rest as held out, where %s left out', (_, count) => {
    const many = teaShop((draft) => {
      const intents = draft['intents'] as { utterances: string[] }[];
      intents[1]!.utterances.push(...Array.from({ length: count }, (__, index) => `are you open on day ${index}`));
    });
    const large = prepareTraining(many).train(new Map());
    expect(large.leftOut).toBe(count + 20 - 3000);
    expect(large.heldOut).toHaveLength(count + 17);
    const last = large.heldOut.find(({ text }) => text === `are you open on day ${count - 1}`)!;
    expect(last).toMatchObject({ intent: many.intents[1]!.name, predicted: many.intents[1]!.name });
    expect(last.ownConfidence).toBeGreaterThan(0.9);
    const { ranking } = openRecogniser(many, large).recognise('order some tea', NO_VECTORS, NOW);
    expect(ranking[0]!.intent).toBe('order_tea');
  });

  it('learns the same, to the last digit, with what an earlier training left as without it', () => {
    const memory = new TrainingMemory();
    prepareTraining(shop, memory).train(new Map());
    for (const bot of [
      teaShop((draft) => (draft['intents'] as { utterances: string[] }[])[0]!.utterances.push('a tin of mint tea')),
      teaShop((draft) => (draft['entities'] as { name: string; values?: unknown[] }[])[0]!.values!.push('white tea')),
      shop,
    ])
      expect(prepareTraining(bot, memory).train(new Map())).toEqual(prepareTraining(bot).train(new Map()));
  });

  it('drops intents from the ranking that the bot no longer has', () => {
    const fewer = { ...shop, intents: shop.intents.slice(1) };
    expect(openRecogniser(fewer, model).recognise('order tea', NO_VECTORS, NOW).ranking).toHaveLength(2);
  });

  it('is empty, not broken, for a bot without intents', () => {
    const empty = { ...shop, intents: [] };
    const recognition = openRecogniser(empty, prepareTraining(empty).train(new Map())).recognise(
      'hello',
      NO_VECTORS,
      NOW,
    );
    expect(recognition).toMatchObject({ intent: null, decision: 'none', ranking: [], confidence: 0 });
  });
});

describe('the recogniser with the encoder', () => {
  let encoder: Encoder;
  let vectors: Vectors;
  let recogniser: Recogniser;

  beforeAll(async () => {
    encoder = await loadEncoder(encoderFolder());
    vectors = await encodeTexts(encoder, prepareTraining(english()).texts);
    recogniser = openRecogniser(english(), prepareTraining(english()).train(vectors));
  });

  const read = async (text: string, reader = recogniser) =>
    reader.recognise(text, await encodeTexts(encoder, reader.textsToEncode(text)), NOW);

  it('matches nothing to a text without words', async () => {
    for (const text of ['', '   ', '🌱🌱🌱', '?!', '— … —', '\ud800'])
      expect(await read(text), text).toMatchObject({ intent: null, decision: 'none', ranking: [], slots: [] });
  });

  it('recognises other words for the same wish', async () => {
    expect((await read('at which hour do your doors shut')).ranking[0]!.intent).toBe('opening_hours');
    expect((await read('I no longer need the parcel, call it off')).ranking[0]!.intent).toBe('cancel_order');
  });

  it('reads English of any country with the encoder', () => {
    const british = teaShop((draft) => (draft['languages'] = ['en-GB']));
    expect(prepareTraining(british).texts).toEqual(prepareTraining(english()).texts);
  });

  it('is less sure of what lies outside the bot', async () => {
    const inside = await read('please put me down for some mint tea');
    const outside = await read('who won the cup final last night');
    expect(outside.confidence).toBeLessThan(inside.confidence);
    expect(outside.decision).toBe('none');
  });

  it('knows an intent by its description alone', async () => {
    const bot = english();
    const described = {
      ...bot,
      intents: [
        ...bot.intents,
        {
          name: 'lost_property',
          description: 'The customer has lost something in the shop and wants it back',
          utterances: [],
        },
      ],
    };
    const more = await encodeTexts(encoder, prepareTraining(described).texts);
    const reader = openRecogniser(described, prepareTraining(described).train(more));
    expect((await read('I think I left my umbrella in your shop', reader)).ranking[0]!.intent).toBe('lost_property');
  });

  it('scores each utterance once, and nothing else', async () => {
    const bot = english();
    const [order, ...rest] = bot.intents;
    const long = 'post me <amount>two</amount> <size>large</size> packets of <tea>mint tea</tea> to my sister';
    const taught = {
      ...bot,
      intents: [{ ...order!, utterances: [...order!.utterances, ...utterances(long)] }, ...rest],
    };
    const model = prepareTraining(taught).train(await encodeTexts(encoder, prepareTraining(taught).texts));
    const scored = model.heldOut.map(({ intent, utterance }) => `${intent} ${utterance}`);
    expect(scored.length).toBe(taught.intents.reduce((sum, { utterances }) => sum + utterances.length, 0));
    expect(new Set(scored).size).toBe(scored.length);
  });

  it.each([1, 2, 3])(
    'is sure of hardly more than what it was taught, and asks, as a bot of %i intents',
    async (count) => {
      const shop = english();
      for (const many of [0, 2, 5]) {
        const intents = shop.intents
          .slice(0, count)
          .map((own) => ({ ...own, utterances: own.utterances.slice(0, many) }));
        const small = { ...shop, intents };
        const taught = await encodeTexts(encoder, prepareTraining(small).texts);
        const reader = openRecogniser(small, prepareTraining(small).train(taught));
        for (const nothing of ['Sue', 'Friday', 'qwerty', 'my cat is poorly', 'is there a train at nine'])
          expect((await read(nothing, reader)).decision, `${nothing}, ${many} utterances`).not.toBe('accept');
        const own = await read('please may I order a packet of mint tea', reader);
        if (many < 5) expect(own.decision).not.toBe('accept');
        else {
          expect(own).toMatchObject({ intent: 'order_tea' });
          const [known] = intents[0]!.utterances;
          expect(await read(known!.text, reader)).toMatchObject({ decision: 'accept', intent: 'order_tea' });
        }
      }
    },
  );

  it('says which vector is missing', () => {
    expect(() => prepareTraining(english()).train(new Map())).toThrow(/No sentence vector for/);
  });
});

describe('the gate', () => {
  const gate = { accept: 0.6, ask: 0.3, lead: 0.1 };
  const ranked = (...confidences: number[]) =>
    confidences.map((confidence, index) => ({ intent: 'abc'[index]!, confidence }));

  it('accepts what reaches the level and leads', () => {
    expect(decide(ranked(0.7, 0.2), gate)).toEqual({ decision: 'accept', candidates: ['a'] });
    expect(decide(ranked(0.6, 0.5), gate).decision).toBe('accept');
  });

  it('asks between those in reach where the lead is too small or the level not reached', () => {
    expect(decide(ranked(0.48, 0.45, 0.05), { ...gate, accept: 0.4 })).toEqual({
      decision: 'ask',
      candidates: ['a', 'b'],
    });
    expect(decide(ranked(0.4, 0.1), gate)).toEqual({ decision: 'ask', candidates: ['a'] });
  });

  it('matches nothing below the ask level, or where there is nothing', () => {
    expect(decide(ranked(0.29, 0.1), gate).decision).toBe('none');
    expect(decide([], gate)).toEqual({ decision: 'none', candidates: [] });
  });
});
