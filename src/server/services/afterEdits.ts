import type { Kysely } from 'kysely';
import type { Database } from '../database/schema.js';
import { listTestSets } from '../repositories/tests.js';
import type { BotService } from './bots.js';
import type { TestRunService } from './testRuns.js';

/** What running tests after edits takes. */
export interface AfterEditsParts {
  database: Kysely<Database>;
  bots: BotService;
  testRuns: TestRunService;
  report: (error: unknown, botId: number) => void;
}

/** Edits are over when nothing was changed for so long, in milliseconds. */
const QUIET = 12_000;

/** Runs the test sets that are to be run after each edit session, once a bot has been left alone for a while. */
export class AfterEdits {
  readonly #parts: AfterEditsParts;
  readonly #quiet: number;
  readonly #waiting = new Map<number, ReturnType<typeof setTimeout>>();

  /** @param quiet how long nothing must have changed, in milliseconds */
  constructor(parts: AfterEditsParts, quiet = QUIET) {
    this.#parts = parts;
    this.#quiet = quiet;
  }

  /** The model of a bot has come up with it. */
  note(botId: number): void {
    clearTimeout(this.#waiting.get(botId));
    const timer = setTimeout(() => {
      this.#waiting.delete(botId);
      this.#run(botId).catch((error: unknown) => this.#parts.report(error, botId));
    }, this.#quiet);
    timer.unref();
    this.#waiting.set(botId, timer);
  }

  async #run(botId: number): Promise<void> {
    const { database, bots, testRuns } = this.#parts;
    const sets = (await listTestSets(database, botId)).filter(({ afterEdits }) => afterEdits);
    if (sets.length === 0) return;
    const bot = await bots.get(botId);
    for (const { id } of sets) await testRuns.start(bot, id, { tell: true });
  }

  close(): void {
    for (const timer of this.#waiting.values()) clearTimeout(timer);
    this.#waiting.clear();
  }
}
