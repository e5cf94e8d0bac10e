import { readdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import { openDatabase } from '../server/database/open.js';
import { modelFolder } from '../server/paths.js';
import { createBot } from '../server/repositories/bots.js';
import { ModelStore } from '../server/models/store.js';
import { keepModel } from '../server/repositories/models.js';
import { createTestSet } from '../server/repositories/tests.js';
import { keepVectors } from '../server/repositories/vectors.js';
import { addWalkthroughs } from '../server/repositories/walkthroughs.js';
import { encodeTexts } from '../core/encode/encoder.js';
import { measureHeldOut } from '../core/measure/evaluate.js';
import { writeModelFile } from '../core/recognise/modelFile.js';
import { encoderFolder } from '../server/encoder/files.js';
import { loadEncoder } from '../server/encoder/load.js';
import { prepareTraining } from '../core/recognise/train.js';
import { loadBotFile, loadTestFile, loadWalkthroughFile } from './files.js';

/**
 * Fills a fresh database with the demo: each folder of `demoFolder` holds `bot.yaml`, and may hold `test.tsv` and
 * `walkthroughs.json`. What the database held before is gone.
 */
export async function seedDemo(
  demoFolder: string,
  databaseFile: string,
  remark: (text: string) => void,
): Promise<void> {
  for (const suffix of ['', '-wal', '-shm']) rmSync(databaseFile + suffix, { force: true });
  const models = modelFolder(path.dirname(databaseFile));
  rmSync(models, { recursive: true, force: true });
  const store = new ModelStore(models);
  const database = await openDatabase(databaseFile);
  const encoder = await loadEncoder(encoderFolder());
  const at = new Date().toISOString();
  const folders = readdirSync(demoFolder, { withFileTypes: true }).filter((entry) => entry.isDirectory());
  for (const { name } of folders) {
    const files = readdirSync(path.join(demoFolder, name));
    if (!files.includes('bot.yaml')) continue;
    const document = loadBotFile(path.join(demoFolder, name, 'bot.yaml'));
    remark(`${document.name}: ${document.intents.length} intents`);
    const id = await createBot(database, document, at);
    const prepared = prepareTraining(document);
    const texts = [...prepared.texts];
    if (files.includes('test.tsv')) {
      const lines = loadTestFile(path.join(demoFolder, name, 'test.tsv'));
      await createTestSet(database, id, { name: 'Customer messages', lines }, at);
      texts.push(...lines.map((line) => line.text));
    }
    if (files.includes('walkthroughs.json')) {
      const walkthroughs = loadWalkthroughFile(path.join(demoFolder, name, 'walkthroughs.json'));
      await addWalkthroughs(database, id, walkthroughs);
      texts.push(...walkthroughs.flatMap(({ turns }) => turns.flatMap((turn) => turn.user ?? [])));
    }
    const vectors = await encodeTexts(encoder, texts);
    await keepVectors(database, vectors);
    const model = prepared.train(vectors);
    const file = `bot-${id}-1.model`;
    await store.keep(file, writeModelFile(document, model));
    const heldOut = measureHeldOut(
      model.heldOut,
      document.intents.map((intent) => intent.name),
    );
    await keepModel(database, id, { revision: 1, file, heldOut, trainedAt: at });
  }
  await database.destroy();
}
