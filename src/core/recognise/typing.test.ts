import { beforeAll, describe, expect, it } from 'vitest';
import { loadBotFile, loadTestFile } from '../../cli/files.js';
import { encoderFolder } from '../../server/encoder/files.js';
import { loadEncoder } from '../../server/encoder/load.js';
import { encodeTexts } from '../encode/encoder.js';
import type { Recognition } from './recognition.js';
import { openRecogniser } from './open.js';
import { prepareTraining } from './train.js';

const NOW = '2026-03-04T09:30';
/** A line of each intent or so; the benchmark measures all of them. */
const LINES = loadTestFile('demo/nursery/test.tsv').filter((_, index) => index % 17 === 3);

const withSpaces = (text: string, space: string) => text.replaceAll(' ', space);
const words = (text: string) => text.replace(/\s+/gu, ' ').replaceAll('’', "'").toLowerCase();

describe('a message is read alike however it is typed:', () => {
  let read: (text: string) => Promise<Recognition>;

  beforeAll(async () => {
    const bot = loadBotFile('demo/nursery/bot.yaml');
    const encoder = await loadEncoder(encoderFolder());
    const recogniser = openRecogniser(
      bot,
      prepareTraining(bot).train(await encodeTexts(encoder, prepareTraining(bot).texts)),
    );
    read = async (text) => recogniser.recognise(text, await encodeTexts(encoder, recogniser.textsToEncode(text)), NOW);
  });

  it.each<[string, (text: string) => string]>([
    ['with curly apostrophes', (text) => text.replaceAll("'", '’')],
    ['in quotes', (text) => `“${text}”`],
    ['with a picture at the end', (text) => `${text} 🙂`],
    ['with two spaces for one', (text) => `  ${withSpaces(text, '  ')} `],
    ['with spaces that do not break', (text) => withSpaces(text, '\u00a0')],
    ['with accents apart', (text) => text.normalize('NFD')],
    ['with or without a full stop', (text) => (/[.?!]$/.test(text) ? text.replace(/\.$/, '') : `${text}.`)],
    ['with more signs than one', (text) => text.replace(/[.?!]$/, (sign) => sign.repeat(3))],
  ])('%s', async (_, typed) => {
    for (const { text } of LINES) {
      const [plain, other] = [await read(text), await read(typed(text))];
      const confidences = (recognition: Recognition) =>
        recognition.ranking.map(({ intent, confidence }) => [intent, expect.closeTo(confidence, 4) as number]);
      expect(
        other.ranking.map(({ intent, confidence }) => [intent, confidence]),
        text,
      ).toEqual(confidences(plain));
      expect(other.decision, text).toBe(plain.decision);
      const slots = (recognition: Recognition) => recognition.slots.map((slot) => [slot.slot, words(slot.text)]);
      expect(slots(other), text).toEqual(slots(plain));
    }
  });

  it('in capitals, but for a few whose names were told by theirs', async () => {
    let [same, all] = [0, 0];
    for (const { text } of LINES) {
      const [plain, other] = [await read(text), await read(text.toUpperCase())];
      if (plain.ranking[0]!.intent === other.ranking[0]!.intent) same++;
      all++;
      for (const { start, end } of other.slots) expect(end).toBeGreaterThan(start);
    }
    expect(same / all).toBeGreaterThan(0.85);
  });
});
