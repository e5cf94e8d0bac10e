import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { encoderFolder } from '../../../server/encoder/files.js';
import { loadEncoder } from '../../../server/encoder/load.js';
import type { BotDocument } from '../../bot/document.js';
import { encodeTexts, NO_VECTORS, type Vectors } from '../../encode/encoder.js';
import { readBotFile } from '../../formats/botFile.js';
import { readTestFile, type TestLine } from '../../formats/testFile.js';
import type { Recognition } from '../recognition.js';
import { openRecogniser, type Recogniser } from '../open.js';
import { prepareTraining } from '../train.js';

const FOLDER = new URL('../../../../tests/freeWords/', import.meta.url);
const NOW = '2026-03-04T09:30';

function readFixture(): { bot: BotDocument; lines: TestLine[] } {
  const bot = readBotFile(readFileSync(new URL('bot.yaml', FOLDER), 'utf8'));
  const test = readTestFile(readFileSync(new URL('test.tsv', FOLDER), 'utf8'));
  if (!bot.ok || !test.ok) throw new Error('the fixture has faults');
  return { bot: bot.document, lines: test.lines };
}

/** Of the marked slots and the slots read, twice those that agree in words, over all. Intents are given. */
function slotF1(recogniser: Recogniser, lines: readonly TestLine[], vectors: Vectors): number {
  let [agreed, all] = [0, 0];
  for (const { text, intent, slots } of lines) {
    const recognition = recogniser.recognise(text, vectors, NOW);
    const own = recogniser.readSlots(intent!, recognition, vectors, null);
    const keys = new Set(own.map(({ slot, start, end }) => `${slot} ${start} ${end}`));
    agreed += 2 * slots!.filter(({ slot, start, end }) => keys.has(`${slot} ${start} ${end}`)).length;
    all += slots!.length + keys.size;
  }
  return agreed / all;
}

describe('free words, people and places in messages of customers, learned from a dozen marked utterances', () => {
  const { bot, lines } = readFixture();
  let seen: { recogniser: Recogniser; vectors: Vectors };
  let unseen: Recogniser;
  let read: (text: string) => Promise<Recognition>;

  beforeAll(async () => {
    const encoder = await loadEncoder(encoderFolder());
    const taught = await encodeTexts(encoder, prepareTraining(bot).texts);
    const recogniser = openRecogniser(bot, prepareTraining(bot).train(taught));
    const asked = lines.flatMap(({ text }) => recogniser.textsToEncode(text));
    seen = { recogniser, vectors: new Map([...taught, ...(await encodeTexts(encoder, asked))]) };
    const unencoded = { ...bot, languages: ['xx'] };
    unseen = openRecogniser(unencoded, prepareTraining(unencoded).train(NO_VECTORS));
    read = async (text) => recogniser.recognise(text, await encodeTexts(encoder, recogniser.textsToEncode(text)), NOW);
  });

  it('are mostly found, though hardly any of them was taught', () => {
    expect(slotF1(seen.recogniser, lines, seen.vectors)).toBeGreaterThan(0.65);
  });

  it('are found more often with the encoder’s view of words than by their letters alone', () => {
    expect(slotF1(seen.recogniser, lines, seen.vectors)).toBeGreaterThan(slotF1(unseen, lines, NO_VECTORS) + 0.02);
  });

  it('are explained by what stands around them and by a word like them', async () => {
    const { slots } = await read('I dropped my mittens in the potting shed');
    expect(slots.map(({ slot, text, why }) => [slot, text, why])).toEqual([
      [
        'thing',
        'my mittens',
        expect.stringMatching(
          /^the words around it are like those around thing in the utterances, and “mittens” is near to “(?:glove|scarf|shoe|purse)” there$/,
        ),
      ],
      ['where', 'the potting shed', expect.stringMatching(/^the words around it are like those around where/)],
    ]);
  });

  it('end where the value of another slot begins', async () => {
    const { slots } = await read('I left my mittens in the potting shed on Saturday');
    const words = slots.map((slot) => slot.text);
    expect(words).toContain('Saturday');
    expect(words.filter((other) => other !== 'Saturday' && other.includes('Saturday'))).toEqual([]);
  });

  it('are no words of hesitation or courtesy at their ends', async () => {
    for (const text of ['um i left uh my mittens um in the potting shed please', 'lost um a bracelet please']) {
      for (const slot of (await read(text)).slots) expect(slot.text).not.toMatch(/^(?:um|uh)\b|\b(?:um|uh|please)$/);
    }
  });
});
