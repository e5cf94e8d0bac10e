/**
 * Writes the pieces of texts of the corpus, less the trades that are kept apart, for `quantise.py` to measure on.
 *
 * Use: npx tsx training/pieces.ts OUT
 */
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { LONGEST_TEXT } from '../src/core/encode/encoder.js';
import { PieceSplitter } from '../src/core/encode/pieces.js';
import { encoderFolder } from '../src/server/encoder/files.js';
import { tradesLearnedFrom } from './trades.js';

/** Of so many lines one is taken. */
const OF = 20;

const [out] = process.argv.slice(2);
if (out === undefined) throw new Error('Say where the pieces are to be written.');
const splitter = new PieceSplitter(
  readFileSync(path.join(encoderFolder(), 'pieces.txt'), 'utf8').trimEnd().split('\n'),
);
const texts = tradesLearnedFrom().flatMap(({ lines }) => lines.map(({ text }) => text));
const taken = texts.filter((_, at) => at % OF === 0);
writeFileSync(out, JSON.stringify(taken.map((text) => splitter.split(text, LONGEST_TEXT))));
console.log(`${taken.length} texts`);
