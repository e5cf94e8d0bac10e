import { afterEach, describe, expect, it } from 'vitest';
import { act } from '../../../tests/acting.js';
import { teaShop } from '../../../tests/teaShop.js';
import type { BotAct } from '../../core/bot/acts/index.js';
import type { BotDocument, Utterance } from '../../core/bot/document.js';
import { documentOf, lookAtModelFile } from '../../core/recognise/modelFile.js';
import { TrainingQueue, type Taught, type TrainingHost, type TrainingWish } from './queue.js';

/** A shop with so many utterances that it takes a while to be taught. */
function large(): BotDocument {
  const shop = teaShop();
  const many = Array.from({ length: 1600 }, (_, index): Utterance => {
    const text = `is there a box number ${index} of leaf ${index % 97} on shelf ${index % 31}`;
    return { id: `m${index}`, text, marks: [] };
  });
  const [first, ...rest] = shop.intents;
  return { ...shop, intents: [{ ...first!, utterances: [...first!.utterances, ...many] }, ...rest] };
}

describe('the training queue', () => {
  let queue: TrainingQueue;
  const told: string[] = [];
  const taught: Taught[] = [];

  function begin(host: Partial<TrainingHost> = {}): void {
    told.length = taught.length = 0;
    queue = new TrainingQueue({
      vectorsOf: () => Promise.resolve(new Map()),
      taught: (done) => {
        told.push(`${done.wish.botId}: ${done.wish.revision}`);
        taught.push(done);
        return Promise.resolve();
      },
      isWatched: () => false,
      failed: ({ botId }, error) => void told.push(`${botId}: ${(error as Error).message}`),
      ...host,
    });
  }

  afterEach(() => queue.close());

  const until = async (reached: () => boolean) => {
    while (!reached()) await new Promise((resolve) => setTimeout(resolve, 5));
  };

  const wish = (botId: number, revision: number, document: BotDocument): TrainingWish => ({
    botId,
    revision,
    document,
  });

  it('teaches acts that follow each other fast together, and each bot as it stands last', async () => {
    begin();
    let document = teaShop();
    queue.want(wish(1, 1, document), null);
    await until(() => told.length === 1);
    for (let revision = 2; revision <= 6; revision++) {
      const one: BotAct = { do: 'addUtterances', intent: 'opening_hours', utterances: [`open on day ${revision}`] };
      const { document: next, delta } = act(document, { ...one, ids: [`day${revision}`] });
      queue.want(wish(1, revision, next), delta);
      document = next;
    }
    await until(() => told.includes('1: 6'));
    expect(told).toEqual(['1: 1', '1: 6']);
    // The thread came to it by what had changed alone.
    expect(documentOf(lookAtModelFile(taught[1]!.bytes))).toEqual(document);
  });

  it('gives a training up for a newer change, and small bots never wait for a large one', async () => {
    begin();
    const big = large();
    queue.want(wish(1, 1, big), null);
    await new Promise((resolve) => setTimeout(resolve, 300));
    queue.want(wish(2, 1, teaShop()), null);
    await until(() => told.length > 0);
    expect(told).toEqual(['2: 1']);
    const { document, delta } = act(big, { do: 'addIntent', name: 'praise' });
    queue.want(wish(1, 2, document), delta);
    await until(() => told.includes('1: 2'));
    expect(told).toEqual(['2: 1', '1: 2']);
  });

  it('teaches bots on a screen before others', async () => {
    begin({ isWatched: (botId) => botId === 3 });
    const wishes = [1, 2, 3].map((botId) => wish(botId, 1, { ...teaShop(), name: `Shop ${botId}` }));
    queue.want(wishes[0]!, null);
    // The first has begun when the others are asked for, at once.
    await new Promise((resolve) => setTimeout(resolve, 100));
    for (const other of wishes.slice(1)) queue.want(other, null);
    await until(() => told.length === 3);
    expect(told).toEqual(['1: 1', '3: 1', '2: 1']);
  });

  it('tells of a fault once, tries again after a while, and at once with a change', async () => {
    const broken = { ...teaShop(), languages: ['en'] };
    let faults = 0;
    begin({
      vectorsOf: () => {
        faults++;
        return Promise.reject(new Error('no encoder'));
      },
    });
    queue.want(wish(1, 1, broken), null);
    await until(() => told.length === 1);
    await new Promise((resolve) => setTimeout(resolve, 500));
    // Nobody asks again in vain while it waits.
    expect([told, faults]).toEqual([['1: no encoder'], 1]);
    queue.want(wish(1, 2, { ...broken, languages: ['qaa'] }), null);
    await until(() => told.length === 2);
    expect(told[1]).toBe('1: 2');
  });

  it('teaches a forgotten bot no further', async () => {
    begin();
    queue.want(wish(1, 1, teaShop()), null);
    queue.forget(1);
    queue.want(wish(2, 1, teaShop()), null);
    await until(() => told.length === 1);
    expect(told).toEqual(['2: 1']);
  });
});
