import type { Kysely } from 'kysely';
import type { JobView } from '../../core/contract/job.js';
import { READER } from '../../core/recognise/modelFile.js';
import { measure } from '../../core/measure/evaluate.js';
import type { TestLine } from '../../core/formats/testFile.js';
import type { Answering } from '../answering/answering.js';
import type { Database } from '../database/schema.js';
import type { StoredBot } from '../repositories/bots.js';
import { readTestLines, saveTestRun } from '../repositories/tests.js';
import { localNow } from '../time.js';
import type { EncodingService } from './encoding.js';
import type { JobService, RunningJob } from './jobs.js';
import { readInBulk } from './lineReading.js';
import type { ModelService } from './models.js';

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
    const { database, models } = this.#parts;
    const current = await models.current(bot);
    const reading = { model: await models.shared(current), lines, now: localNow(bot.document.timeZone) };
    const results = await readInBulk(this.#parts, reading, (read) => job.progress(read));
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
