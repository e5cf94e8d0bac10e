import { mkdtempSync, rmSync } from 'node:fs';
import { spawn } from 'node:child_process';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { BotDocument } from '../src/core/bot/document.js';
import { encodeTexts } from '../src/core/encode/encoder.js';
import { openRecogniser, textsForTraining, trainRecogniser } from '../src/core/recognise/recogniser.js';
import { loadBotFile, loadTestFile } from '../src/cli/files.js';
import { seedDemo } from '../src/cli/seed.js';
import { encoderFolder, loadEncoder } from '../src/server/encoder/load.js';
import { databaseFile } from '../src/server/paths.js';

const NOW = '2026-03-04T09:30';
const PORT = '4179';

interface Row {
  what: string;
  milliseconds: number;
  /** What it is compared with, in milliseconds. */
  aim?: number;
}

const rows: Row[] = [];

function note(what: string, milliseconds: number, aim?: number): void {
  rows.push({ what, milliseconds, ...(aim === undefined ? {} : { aim }) });
}

function quantile(values: number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0;
}

async function timed<T>(work: () => T | Promise<T>): Promise<{ value: T; milliseconds: number }> {
  const started = performance.now();
  const value = await work();
  return { value, milliseconds: performance.now() - started };
}

async function coreTimes(document: BotDocument, texts: string[]): Promise<void> {
  const { value: encoder, milliseconds: loading } = await timed(() => loadEncoder(encoderFolder()));
  note('load the encoder', loading);
  const training = textsForTraining(document);
  const first = await timed(() => encodeTexts(encoder, training));
  note(`encode ${training.length} texts for the first training`, first.milliseconds);
  trainRecogniser(document, first.value);
  const trained = await timed(() => trainRecogniser(document, first.value));
  note('train with vectors cached, cross-validation included', trained.milliseconds, 1500);
  const recogniser = openRecogniser(document, trained.value);
  const encoding: number[] = [];
  const reading: number[] = [];
  for (const text of texts.slice(0, 200)) {
    const vector = await timed(() => encoder.encode([text]));
    encoding.push(vector.milliseconds);
    const read = await timed(() => recogniser.recognise(text, vector.value[0]!, NOW));
    reading.push(read.milliseconds);
  }
  note('encode a new message, p50', quantile(encoding, 0.5));
  note('encode a new message, p95', quantile(encoding, 0.95));
  note('everything but the encoder, p50', quantile(reading, 0.5));
  note('everything but the encoder, p95', quantile(reading, 0.95));
}

async function serverTimes(texts: string[]): Promise<void> {
  const data = mkdtempSync(path.join(tmpdir(), 'reed-gate-bench-'));
  await seedDemo('demo', databaseFile(data), () => undefined);
  const server = spawn(process.execPath, ['build/index.js'], {
    stdio: 'ignore',
    env: { ...process.env, HOST: '127.0.0.1', PORT, REED_GATE_DATA: data, LOG_LEVEL: 'silent', NODE_ENV: 'production' },
  });
  const url = `http://127.0.0.1:${PORT}/api/bots/1`;
  const post = async (to: string, body: unknown) => {
    const response = await fetch(url + to, {
      method: 'POST',
      body: JSON.stringify(body),
      headers: { 'content-type': 'application/json' },
    });
    if (!response.ok) throw new Error(await response.text());
    return (await response.json()) as unknown;
  };
  const current = async () => ((await (await fetch(`${url}/model`)).json()) as { state: string }).state === 'current';
  try {
    for (
      let attempt = 0;
      !(await fetch(`${url}/model`).then(
        (response) => response.ok,
        () => false,
      ));
      attempt++
    ) {
      if (attempt > 100) throw new Error('The server does not answer.');
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    await post('/recognise', { text: 'warm up' });
    const probes: number[] = [];
    for (const [index, text] of texts.slice(0, 200).entries()) {
      // A word that no text has makes each message new to the cache.
      probes.push((await timed(() => post('/recognise', { text: `${text} ${index}` }))).milliseconds);
    }
    note('probe, request to answer, new text, p50', quantile(probes, 0.5), 50);
    note('probe, request to answer, new text, p95', quantile(probes, 0.95), 50);
    const retrains: number[] = [];
    for (let round = 0; round < 5; round++) {
      const started = performance.now();
      await post('/edits', {
        do: 'addUtterances',
        intent: 'opening_hours',
        utterances: [`are you open on day ${round} of the fair`],
      });
      while (!(await current())) await new Promise((resolve) => setTimeout(resolve, 10));
      retrains.push(performance.now() - started);
    }
    note('an edit until the model is current, p50', quantile(retrains, 0.5), 1500);
    note('an edit until the model is current, slowest of 5', quantile(retrains, 1), 1500);
  } finally {
    server.kill();
    rmSync(data, { recursive: true, force: true });
  }
}

const document = loadBotFile('demo/nursery/bot.yaml');
const texts = loadTestFile('demo/nursery/test.tsv').map((line) => line.text);
await coreTimes(document, texts);
await serverTimes(texts);

const width = Math.max(...rows.map((row) => row.what.length));
console.log(
  `${document.name}: ${document.intents.length} intents, ${document.intents.reduce((sum, intent) => sum + intent.utterances.length, 0)} utterances\n`,
);
console.log(`${'what'.padEnd(width)}  ${'ms'.padStart(9)}  of the aim`);
for (const { what, milliseconds, aim } of rows) {
  const ratio = aim === undefined ? '' : `${(milliseconds / aim).toFixed(2)} × ${aim} ms`;
  console.log(`${what.padEnd(width)}  ${milliseconds.toFixed(2).padStart(9)}  ${ratio}`);
}
