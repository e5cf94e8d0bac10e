/**
 * Writes the vectors of the background beside the encoder's weights, so that no bot waits for them: half of the texts
 * that a small bot is taught with. Run it after the weights are packed, and after a change of the background.
 *
 * Use: npx tsx training/background.ts
 */
import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { emptyBot } from '../src/core/bot/document.js';
import { prepareTraining } from '../src/core/recognise/train.js';
import { encoderFolder } from '../src/server/encoder/files.js';
import { loadEncoder } from '../src/server/encoder/load.js';

const NAME = 'known.tsv';
const folder = encoderFolder();
const manifestFile = path.join(folder, 'encoder.json');
const manifest = JSON.parse(readFileSync(manifestFile, 'utf8')) as Record<string, unknown>;
delete manifest['known'];
writeFileSync(manifestFile, `${JSON.stringify(manifest, null, 2)}\n`);
// A bot without intents is taught the background alone.
const { texts } = prepareTraining(emptyBot('background'));
const vectors = await (await loadEncoder(folder)).encode(texts);
const lines = texts.map((text, at) => `${text}\t${Buffer.from(vectors[at]!.buffer).toString('base64')}\n`);
const file = Buffer.from(lines.join(''));
writeFileSync(path.join(folder, NAME), file);
manifest['known'] = { name: NAME, sha256: createHash('sha256').update(file).digest('hex') };
writeFileSync(manifestFile, `${JSON.stringify(manifest, null, 2)}\n`);
console.log(`${texts.length} texts, ${file.length} bytes`);
