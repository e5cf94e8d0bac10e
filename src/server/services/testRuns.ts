import type { Kysely } from 'kysely';
import type { JobView } from '../../core/contract/job.js';
import { READER } from '../../core/recognise/modelFile.js';
import { compareRuns, comparisonInShort } from '../../core/measure/compare.js';
import { measure } from '../../core/measure/evaluate.js';
import type { TestLine } from '../../core/formats/testFile.js';
import type { Answering } from '../answering/answering.js';
import type { SharedModel } from '../answering/tasks.js';
import type { Database } from '../database/schema.js';
import type { StoredBot } from '../repositories/bots.js';
import { readState } from '../repositories/states.js';
import { lastTestRun, readTestLines, saveTestRun, type TestRun } from '../repositories/tests.js';
import { localNow } from '../time.js';
import type { EncodingService } from './encoding.js';
import type { JobService, RunningJob } from './jobs.js';
import { readInBulk } from './lineReading.js';
import type { ModelService } from './models.js';
import { teachAside } from './teaching.js';

/** What test runs take. */
export interface TestRunParts {
  database: Kysely<Database>;
  answering: Answering;
  models: ModelService;
  encoding: EncodingService;
  jobs: JobService;
}

/** What reads the lines of a run. */
interface Reader extends Pick<StoredBot, 'document' | 'revision'> {
  model: SharedModel;
}

/** The bounds of a difference are the same each time. */
const SEED = 1;

/** Runs test sets in the background. */
export class TestRunService {
  readonly #parts: TestRunParts;

  constructor(parts: TestRunParts) {
    this.#parts = parts;
  }

  /**
   * Begins a run and comes back at once; one that goes on already is told of. `null` if the bot has no such test set, or
   * no such state.
   * @param options `state`: the kept state of the bot that reads, in place of the bot as it is; `tell`: whether screens
   *   are told what came of it
   */
  async start(
    bot: StoredBot,
    testSetId: number,
    { state, tell = false }: { state?: number | undefined; tell?: boolean } = {},
  ): Promise<JobView | null> {
    const { database, jobs } = this.#parts;
    const going = jobs.running(bot.id, 'test run', testSetId);
    if (going) return going;
    const lines = await readTestLines(database, bot.id, testSetId);
    const kept = state === undefined ? null : await readState(database, bot.id, state);
    if (!lines || (state !== undefined && !kept)) return null;
    const plan = { kind: 'test run' as const, subject: testSetId, total: lines.length };
    const { view } = await jobs.start(bot.id, plan, async (job) => {
      const before = tell ? await lastTestRun(database, bot.id, testSetId) : null;
      const reader = kept ? await this.#asKept(kept, job) : await this.#asItIs(bot);
      const run = await this.#run(reader, { testSetId, lines, state: kept?.name ?? null }, job);
      const id = await saveTestRun(database, run);
      if (before) job.tell(comparisonInShort(compareRuns(before.results, run.results, SEED)));
      return id;
    });
    return view;
  }

  /** The bot may have gone on since: what reads is told by the model. */
  async #asItIs(bot: StoredBot): Promise<Reader> {
    const { models } = this.#parts;
    const current = await models.current(bot);
    return { document: bot.document, revision: current.revision, model: await models.shared(current) };
  }

  async #asKept({ document, revision }: Omit<Reader, 'model'>, job: RunningJob): Promise<Reader> {
    const model = await teachAside(this.#parts, { document, slots: true }, () => job.check());
    return { document, revision, model };
  }

  async #run(
    { document, revision, model }: Reader,
    { testSetId, lines, state }: { testSetId: number; lines: TestLine[]; state: string | null },
    job: RunningJob,
  ): Promise<Omit<TestRun, 'id'>> {
    const reading = { model, lines, now: localNow(document.timeZone) };
    const results = await readInBulk(this.#parts, reading, (read) => job.progress(read));
    const names = document.intents.map(({ name }) => name);
    return {
      testSetId,
      revision,
      ranAt: new Date().toISOString(),
      reader: READER,
      state,
      evaluation: measure(results, names),
      results,
    };
  }
}
