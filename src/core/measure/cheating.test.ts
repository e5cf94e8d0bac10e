import { describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import type { BotDocument } from '../bot/document.js';
import { NO_VECTORS } from '../encode/encoder.js';
import type { TestLine } from '../formats/testFile.js';
import { languageOf } from '../language/index.js';
import { NOISES } from '../noise/index.js';
import { openRecogniser } from '../recognise/open.js';
import { prepareTraining } from '../recognise/train.js';
import { compareRuns } from './compare.js';
import { crossValidation } from './crossValidation.js';
import { foldMessage, measure, readLines, taughtMessages, type LineResult } from './evaluate.js';
import { foldsOf, withShare } from './folds.js';
import { gatedMessages, thresholdCurve } from './levels.js';
import { noiseTrial, noisyLines } from './noiseTrial.js';

const NOW = '2026-03-04T09:30';

/** Reads lines with a bot as test runs do. */
function read(document: BotDocument, lines: readonly TestLine[]): Promise<LineResult[]> {
  const recogniser = openRecogniser(document, prepareTraining(document).train(NO_VECTORS));
  const settings = { now: NOW, taught: taughtMessages(document), encode: () => Promise.resolve(NO_VECTORS) };
  return readLines(recogniser, lines, settings);
}

const names = ({ intents }: BotDocument): string[] => intents.map(({ name }) => name);
const shop = teaShop();
/** What the bot was taught, in disguise. */
const DISGUISED: TestLine[] = [
  { text: 'order some tea', intent: 'order_tea' },
  { text: '  ORDER   some TEA!! ', intent: 'order_tea' },
  { text: 'Order some tea…', intent: 'order_tea' },
  { text: 'I would like two packets of green tea.', intent: 'order_tea' },
];
const HONEST: TestLine = { text: 'a quarter of the mint for my aunt', intent: 'order_tea' };

describe('a bot that was taught its test', () => {
  it('gains nothing by lines that it was taught, however they are written', async () => {
    const results = await read(shop, [...DISGUISED, HONEST]);
    expect(results.filter(({ taught }) => taught)).toHaveLength(DISGUISED.length);
    const evaluation = measure(results, names(shop));
    expect(evaluation).toMatchObject({ lines: 1, inScope: 1, taught: DISGUISED.length });
    expect(evaluation.confusion.counts.flat().reduce((sum, count) => sum + count, 0)).toBe(1);
    expect(gatedMessages(results)).toHaveLength(1);
    expect(thresholdCurve(gatedMessages(results))[0]).toMatchObject({ accepted: 1 });
  });

  it('is not told to be better than before by lines that it was taught since', async () => {
    const before = await read(shop, [HONEST]);
    const taughtIt = teaShop((draft) => {
      (draft['intents'] as { utterances: string[] }[])[0]!.utterances.push(HONEST.text);
    });
    const after = await read(taughtIt, [HONEST]);
    expect(after[0]).toMatchObject({ taught: true, predicted: 'order_tea' });
    expect(compareRuns(before, after, 1)).toMatchObject({ lines: 0, mended: [], broken: [] });
    expect(measure(after, names(taughtIt)).accuracy).toBeNull();
  });

  it('gains nothing by noise in lines that it was taught', async () => {
    const settings = { strength: 1, seed: 1, language: languageOf(shop) };
    for (const noise of NOISES) {
      const [clean, noisy] = [await read(shop, DISGUISED), await read(shop, noisyLines(DISGUISED, noise, settings))];
      expect(noiseTrial(noise, clean, noisy, 1)).toMatchObject({ change: null, examples: [] });
    }
  });
});

describe('utterances that are held out', () => {
  it('are never taught to the model that reads them, nor is one like them', async () => {
    const doubled = teaShop((draft) => {
      (draft['intents'] as { utterances: string[] }[])[0]!.utterances.push('Order some TEA', 'order, some tea');
    });
    const folds = foldsOf(doubled, 3, 1);
    const lines: LineResult[] = [];
    for (const { document, lines: own } of folds) {
      const taught = taughtMessages(document);
      const results = await read(document, own);
      for (const { text, taught: flagged } of results) {
        expect(document.intents.some(({ utterances }) => utterances.some((one) => one.text === text))).toBe(false);
        if (!flagged) expect(taught.has(foldMessage(text))).toBe(false);
      }
      lines.push(...results);
    }
    const result = crossValidation(doubled, [lines], { folds: 3, seed: 1 });
    expect(result.doubled).toBeGreaterThan(0);
    expect(result.utterances + result.doubled).toBe(lines.length);
  });

  it('are not taught either with a share of the others', () => {
    for (const { document, lines } of foldsOf(shop, 3, 2)) {
      const taught = taughtMessages(withShare(document, 0.5, 2));
      for (const { text } of lines) expect(taught.has(foldMessage(text))).toBe(false);
    }
  });

  it('say nothing of an intent that knows its utterances by heart', () => {
    // Words that nothing else has: held out, no model can know them.
    const nonsense = ['zebra', 'quokka', 'ibis', 'numbat', 'okapi', 'dingo'].map((word) => `${word} ${word}ly`);
    const byHeart = teaShop((draft) => {
      (draft['intents'] as { utterances: string[] }[])[1]!.utterances = nonsense;
    });
    const name = byHeart.intents[1]!.name;
    const { heldOut } = prepareTraining(byHeart).train(NO_VECTORS);
    const own = heldOut.filter(({ intent }) => intent === name);
    expect(own).toHaveLength(nonsense.length);
    expect(own.filter(({ ownConfidence }) => ownConfidence > 0.8)).toEqual([]);
  });
});
