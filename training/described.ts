/**
 * Measures intents that have a name and a description alone beside others that are taught: each intent of a bot in turn.
 *
 * Use: npx tsx training/described.ts [--kept FILE] --bot NAME BOT TEST…
 */
import type { BotDocument } from '../src/core/bot/document.js';
import { readLines } from '../src/core/measure/evaluate.js';
import { encodeWith, teach } from '../src/core/recognise/answer.js';
import { openRecogniser } from '../src/core/recognise/open.js';
import { keeping } from './kept.js';
import { NOW, readOptions, type Trial } from './trials.js';

/** A bot whose intent is not taught yet. */
const withBare = (document: BotDocument, bare: string): BotDocument => ({
  ...document,
  intents: document.intents.map((intent) => (intent.name === bare ? { ...intent, utterances: [] } : intent)),
});

const { kept, trials } = readOptions(process.argv.slice(2));
const { encoder, keep } = await keeping(kept);
const encode = encodeWith(encoder);

/** Counts the lines of an intent that are read right, or have it among the first three, and those it takes from others. */
async function tryBare({ document, lines }: Trial, bare: string) {
  const bot = withBare(document, bare);
  const recogniser = openRecogniser(bot, await teach(bot, encode));
  const results = await readLines(recogniser, lines, { now: NOW, taught: new Set(), encode });
  const own = results.filter(({ expected }) => expected === bare);
  const others = results.filter(({ expected }) => expected !== null && expected !== bare);
  return {
    own: own.length,
    right: own.filter(({ predicted }) => predicted === bare).length,
    three: own.filter(({ place }) => place !== null && place <= 3).length,
    others: others.length,
    taken: others.filter(({ predicted }) => predicted === bare).length,
  };
}

console.log('bot'.padEnd(12) + ['first', 'three', 'taken', 'most taken'].map((name) => name.padStart(12)).join(''));
for (const trial of trials) {
  const described = trial.document.intents.filter(({ description }) => description !== undefined);
  const all: Awaited<ReturnType<typeof tryBare>>[] = [];
  for (const { name } of described) all.push(await tryBare(trial, name));
  const sum = (key: keyof (typeof all)[number]) => all.reduce((total, one) => total + one[key], 0);
  const most = Math.max(...all.map(({ taken, others }) => taken / others));
  const figures = [sum('right') / sum('own'), sum('three') / sum('own'), sum('taken') / sum('others'), most];
  console.log(trial.name.padEnd(12) + figures.map((figure) => figure.toFixed(3).padStart(12)).join(''));
}
keep();
