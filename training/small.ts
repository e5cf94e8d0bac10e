/**
 * Measures bots of few intents, cut from larger ones: all other intents' lines lie outside them.
 *
 * Use: npx tsx training/small.ts [--kept FILE] [--bot NAME BOT TEST]…
 */
import type { BotDocument } from '../src/core/bot/document.js';
import { readLines, type LineResult } from '../src/core/measure/evaluate.js';
import { encodeWith, teach } from '../src/core/recognise/answer.js';
import { openRecogniser } from '../src/core/recognise/open.js';
import { keeping } from './kept.js';
import { tradesKeptApart } from './trades.js';
import { NOW, readOptions, type Trial } from './trials.js';

const SIZES = [1, 2, 3, 5, 7];
const UTTERANCES = [0, 2, 5, Infinity];
const DRAWS = 2;

/** A bot of some of its intents, with the first utterances of each. */
function cut(document: BotDocument, first: number, { size, most }: { size: number; most: number }): BotDocument {
  const { length } = document.intents;
  // Far apart in the list, so that no draw has neighbours alone.
  const chosen = Array.from({ length: size }, (_, at) => (first + Math.floor((at * length) / size)) % length);
  const intents = document.intents.filter((_, at) => chosen.includes(at));
  return {
    ...document,
    intents: intents.map((intent) => ({ ...intent, utterances: intent.utterances.slice(0, most) })),
  };
}

async function read({ lines }: Trial, bot: BotDocument): Promise<LineResult[]> {
  const known = new Set(bot.intents.map(({ name }) => name));
  const recogniser = openRecogniser(bot, await teach(bot, encode));
  const own = lines.map((line) => ({
    ...line,
    intent: line.intent !== undefined && line.intent !== null && known.has(line.intent) ? line.intent : null,
  }));
  return readLines(recogniser, own, { now: NOW, taught: new Set(), encode });
}

const share = (part: number, whole: number): string => (whole === 0 ? '–' : (part / whole).toFixed(3)).padStart(11);

const { kept, trials } = readOptions(process.argv.slice(2));
const { encoder, keep } = await keeping(kept);
const encode = encodeWith(encoder);
const all = [...tradesKeptApart(), ...trials];
console.log(
  'intents  utterances   ' +
    ['own right', 'own acted', 'own asked', 'others act', 'others ask', 'right acted']
      .map((name) => name.padStart(11))
      .join(''),
);
for (const size of SIZES) {
  for (const most of UTTERANCES) {
    const results: LineResult[] = [];
    for (const trial of all) {
      for (let draw = 0; draw < DRAWS; draw++)
        results.push(...(await read(trial, cut(trial.document, draw * 5, { size, most }))));
    }
    const own = results.filter(({ expected }) => expected !== null);
    const others = results.filter(({ expected }) => expected === null);
    const of = (group: LineResult[], decision: string) => group.filter((one) => one.decision === decision).length;
    const acted = results.filter(({ decision }) => decision === 'accept');
    const right = acted.filter(({ expected, predicted }) => expected === predicted).length;
    console.log(
      `${String(size).padEnd(9)}${String(most === Infinity ? 'all' : most).padEnd(13)}` +
        share(own.filter(({ expected, predicted }) => expected === predicted).length, own.length) +
        share(of(own, 'accept'), own.length) +
        share(of(own, 'ask'), own.length) +
        share(of(others, 'accept'), others.length) +
        share(of(others, 'ask'), others.length) +
        share(right, acted.length),
    );
  }
}
keep();
