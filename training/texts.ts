/**
 * Writes what an encoder is taught and chosen with: every text of the trades as the encoder reads it, with its
 * n-grams, so that training sees messages as the recogniser does.
 *
 * Use: npx tsx training/texts.ts OUT [--bot NAME BOT TEST]…
 */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { BotDocument } from '../src/core/bot/document.js';
import { loadBotFile, loadTestFile } from '../src/cli/files.js';
import { languageOf } from '../src/core/language/index.js';
import { countTerms } from '../src/core/recognise/features.js';
import { prepareFinders } from '../src/core/recognise/finders/index.js';
import { modelText, SOME_DAY } from '../src/core/recognise/modelText.js';
import { prepareReader, wordsOf, type ReadText } from '../src/core/recognise/reading.js';
import { readCorpus, tradeBot, UTTERANCE } from './trades.js';

/** A message as it is learned from. `terms` holds its n-grams and how often each occurs, by turns. */
interface ReadLine {
  intent: string | null;
  style: string;
  text: string;
  terms: number[];
}

const termNumbers = new Map<number, number>();

/** Numbers n-grams in the order in which they turn up. */
function numberOf(term: number): number {
  const known = termNumbers.get(term) ?? termNumbers.size;
  termNumbers.set(term, known);
  return known;
}

interface Line {
  text: string;
  intent: string | null;
  style: string;
}

/** Reads lines as a bot does. */
function readAs(document: BotDocument, lines: readonly Line[]): ReadLine[] {
  const reader = prepareReader(document, wordsOf(document));
  const findAll = prepareFinders(document, reader.vocabulary);
  return lines.map(({ text, intent, style }) => {
    const message: ReadText = reader.read(text);
    const { terms, counts } = countTerms(modelText(message.mended, message.tokens, findAll(message, SOME_DAY)));
    return {
      intent,
      style,
      // The encoder was taught texts that end in a stop or a question mark.
      text: message.mended.endsWith('?') ? message.mended : `${message.mended}.`,
      terms: [...terms].flatMap((term, at) => [numberOf(term), counts[at]!]),
    };
  });
}

function botLines(botFile: string, testFile: string): { document: BotDocument; lines: Line[] } {
  const document = loadBotFile(botFile);
  const taught = document.intents.flatMap(({ name, utterances }) =>
    utterances.map(({ text }) => ({ text, intent: name, style: UTTERANCE })),
  );
  const asked = loadTestFile(testFile).flatMap(({ text, intent, style }) =>
    intent === undefined ? [] : [{ text, intent, style: style ?? 'test' }],
  );
  return { document, lines: [...taught, ...asked] };
}

const [out, ...others] = process.argv.slice(2);
if (out === undefined) throw new Error('Name the file to write: npx tsx training/texts.ts OUT');
const folder = path.join(import.meta.dirname, 'corpus');
const corpus = readCorpus(readdirSync(folder).map((name) => readFileSync(path.join(folder, name), 'utf8')));
const trades = [...corpus].map(([trade, lines]) => ({ trade, lines: readAs(tradeBot(trade, lines), lines) }));
for (let at = 0; at + 3 < others.length; at += 4) {
  const { document, lines } = botLines(others[at + 2]!, others[at + 3]!);
  trades.push({ trade: others[at + 1]!, lines: readAs(document, lines) });
}
const nobody = tradeBot('nobody', []);
const background = readAs(
  nobody,
  languageOf(nobody).background.map((text) => ({ text, intent: null, style: 'background' })),
);
// The last two bits of an n-gram tell its group: words, characters or values.
const groups = [...termNumbers.keys()].map((term) => term & 3);
writeFileSync(out, JSON.stringify({ terms: termNumbers.size, groups, background, trades }));
