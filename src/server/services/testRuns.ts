import type { Kysely } from 'kysely';
import type { JobView } from '../../core/contract/job.js';
import { ENCODER_VERSION } from '../../core/encode/encoder.js';
import { MODEL_VERSION } from '../../core/recognise/intentModel.js';
import { measure, type LineResult } from '../../core/measure/evaluate.js';
import type { TestLine } from '../../core/formats/testFile.js';
import type { Answering } from '../answering/answering.js';
import type { Database } from '../database/schema.js';
import type { StoredBot } from '../repositories/bots.js';
import { readTestLines, saveTestRun } from '../repositories/tests.js';
import { batchesOf } from '../slices.js';
import { localNow } from '../time.js';
import type { EncodingService } from './encoding.js';
import type { JobService, RunningJob } from './jobs.js';
import type { ModelService } from './models.js';

/** Lines read at a stretch, before other work goes on. */
const STRETCH = 32;

/** What read the lines, beside the bot as it stood: with the same weights the figures are the same, to the digit. */
const READER = `model ${MODEL_VERSION}, ${ENCODER_VERSION}`;

/** What test runs take. */
export interface TestRunParts {
  database: Kysely<Database>;
  answering: Answering;
  models: ModelService;
  encoding: EncodingService;
  jobs: JobService;
}

/** Runs test sets in the background. */
export class TestRunService {
  readonly #parts: TestRunParts;

  constructor(parts: TestRunParts) {
    this.#parts = parts;
  }

  /** Begins a run and comes back at once; one that goes on already is told of. `null` if the bot has no such test set. */
  async start(bot: StoredBot, testSetId: number): Promise<JobView | null> {
    const { database, jobs } = this.#parts;
    const going = jobs.running(bot.id, 'test run', testSetId);
    if (going) return going;
    const lines = await readTestLines(database, bot.id, testSetId);
    if (!lines) return null;
    const plan = { kind: 'test run' as const, subject: testSetId, total: lines.length };
    const { view } = await jobs.start(bot.id, plan, (job) => this.#run(bot, testSetId, lines, job));
    return view;
  }

  async #run(bot: StoredBot, testSetId: number, lines: TestLine[], job: RunningJob): Promise<number> {
    const { database, answering, models, encoding } = this.#parts;
    const current = await models.current(bot);
    const model = await models.shared(current);
    const now = localNow(bot.document.timeZone);
    const results: LineResult[] = [];
    for (const some of batchesOf(lines, STRETCH)) {
      const messages = some.map(({ text }) => text);
      const texts = await answering.run('bulk', 'textsOf', { model, messages, as: 'lines' });
      const vectors = await encoding.vectorsOf(texts, { progress: () => job.check() });
      results.push(...(await answering.run('bulk', 'readLines', { model, lines: some, now, vectors })));
      job.progress(results.length);
    }
    const evaluation = measure(
      results,
      bot.document.intents.map((intent) => intent.name),
    );
    return saveTestRun(database, {
      testSetId,
      revision: current.revision,
      ranAt: new Date().toISOString(),
      reader: READER,
      evaluation,
      results,
    });
  }
}
