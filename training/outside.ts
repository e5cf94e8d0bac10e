/**
 * Ranks what lies outside the trades that are learned from by how sure the bots of *other* trades are of it: the first
 * lines are those that the background of a language would gain most by. The trades kept apart take no part.
 *
 * Use: npx tsx training/outside.ts [--kept FILE] > LINES
 */
import { readLines } from '../src/core/measure/evaluate.js';
import { encodeWith, teach } from '../src/core/recognise/answer.js';
import { openRecogniser } from '../src/core/recognise/open.js';
import { keeping } from './kept.js';
import { tradesLearnedFrom } from './trades.js';
import { NOW, readOptions } from './trials.js';

/** Every so many trades has a bot that reads the lines of all others. */
const EVERY = 3;

const { kept } = readOptions(process.argv.slice(2));
const { encoder, keep } = await keeping(kept);
const encode = encodeWith(encoder);
const trades = tradesLearnedFrom();
const outside = trades.map(({ name, lines }) => ({ name, lines: lines.filter(({ intent }) => intent === null) }));
const sure = new Map<string, number>();
for (const { name, document } of trades.filter((_, at) => at % EVERY === 0)) {
  const recogniser = openRecogniser(document, await teach(document, encode));
  const others = outside.filter((other) => other.name !== name).flatMap(({ lines }) => lines);
  const results = await readLines(recogniser, others, { now: NOW, taught: new Set(), encode });
  others.forEach(({ text }, at) => sure.set(text, (sure.get(text) ?? 0) + results[at]!.confidence));
  console.error(name);
}
keep();
for (const [text, total] of [...sure].sort(([, a], [, b]) => b - a)) console.log(`${total.toFixed(2)}\t${text}`);
