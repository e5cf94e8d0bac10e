import type { Kysely } from 'kysely';
import type { TestRunProgress } from '../../core/contract/prove.js';
import { measure, readLine, taughtMessages, type LineResult } from '../../core/measure/evaluate.js';
import type { TestLine } from '../../core/formats/testFile.js';
import type { Database } from '../database/schema.js';
import type { StoredBot } from '../repositories/bots.js';
import { readTestLines, saveTestRun } from '../repositories/tests.js';
import { localNow } from '../time.js';
import type { EncodingService } from './encoding.js';
import type { ModelService } from './models.js';

class Stopped extends Error {}

/** Lines read at a stretch, before other work goes on. */
const STRETCH = 6;

/** Runs test sets in the background. */
export class TestRunService {
  readonly #database: Kysely<Database>;
  readonly #models: ModelService;
  readonly #encoding: EncodingService;
  readonly #runs = new Map<number, TestRunProgress>();
  readonly #stopped = new Set<number>();
  readonly #report: (error: unknown, botId: number) => void;
  #next = 1;

  constructor(
    database: Kysely<Database>,
    models: ModelService,
    encoding: EncodingService,
    report: (error: unknown, botId: number) => void,
  ) {
    this.#database = database;
    this.#models = models;
    this.#encoding = encoding;
    this.#report = report;
  }

  /** Begins a run and comes back at once; `null` if the bot has no such test set. */
  async start(bot: StoredBot, testSetId: number): Promise<TestRunProgress | null> {
    const lines = await readTestLines(this.#database, bot.id, testSetId);
    if (!lines) return null;
    const progress: TestRunProgress = {
      id: this.#next++,
      testSetId,
      state: 'running',
      done: 0,
      total: lines.length,
      message: null,
      runId: null,
    };
    this.#runs.set(progress.id, progress);
    void this.#run(bot, lines, progress);
    return progress;
  }

  progress(id: number): TestRunProgress | null {
    return this.#runs.get(id) ?? null;
  }

  /** @returns whether there is such a run */
  stop(id: number): boolean {
    if (this.#runs.has(id)) this.#stopped.add(id);
    return this.#runs.has(id);
  }

  async #run(bot: StoredBot, lines: TestLine[], progress: TestRunProgress): Promise<void> {
    const check = () => {
      if (this.#stopped.has(progress.id)) throw new Stopped();
    };
    /** Lets other work go on now and then. */
    const rest = async (index: number) => {
      if (index % STRETCH !== 0) return;
      await new Promise((resolve) => setImmediate(resolve));
      check();
    };
    try {
      const { recogniser, revision } = await this.#models.current(bot);
      const { document } = recogniser;
      const asked = new Set<string>();
      for (const [index, line] of lines.entries()) {
        for (const text of recogniser.textsToEncode(line.text)) asked.add(text);
        await rest(index);
      }
      // Encoding is nearly all of the work, so the bar follows it; the last line counts when all are read.
      const vectors = await this.#encoding.vectorsOf([...asked], (done) => {
        check();
        progress.done = Math.min(Math.floor((done / Math.max(1, asked.size)) * lines.length), lines.length - 1);
      });
      const now = localNow(document.timeZone);
      const taught = taughtMessages(document);
      const results: LineResult[] = [];
      for (const [index, line] of lines.entries()) {
        results.push(readLine(recogniser, line, vectors, { now, taught }));
        await rest(index);
      }
      const evaluation = measure(
        results,
        document.intents.map((intent) => intent.name),
      );
      progress.runId = await saveTestRun(this.#database, {
        testSetId: progress.testSetId,
        revision,
        ranAt: new Date().toISOString(),
        evaluation,
        results,
      });
      progress.done = lines.length;
      progress.state = 'done';
    } catch (error) {
      if (error instanceof Stopped) progress.state = 'stopped';
      else {
        progress.state = 'failed';
        progress.message = 'The test run failed. The lines are kept; try again.';
        this.#report(error, bot.id);
      }
    }
  }
}
