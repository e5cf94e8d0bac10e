import type { Kysely } from 'kysely';
import { wordsOf } from '../../core/converse/takeTurn.js';
import type { Walkthrough, WalkthroughResult } from '../../core/converse/walkthrough.js';
import type { Vectors } from '../../core/encode/encoder.js';
import type { Answering } from '../answering/answering.js';
import type { SharedModel } from '../answering/tasks.js';
import type { Database } from '../database/schema.js';
import { listWalkthroughs } from '../repositories/walkthroughs.js';
import { localNow } from '../time.js';
import type { EncodingService } from './encoding.js';
import { StoppedError, type JobService } from './jobs.js';

/** What running walkthroughs takes. */
export interface WalkthroughParts {
  database: Kysely<Database>;
  answering: Answering;
  encoding: EncodingService;
  jobs: JobService;
  report: (error: unknown, botId: number) => void;
}

/** Runs the walkthroughs of a bot with a model. */
export class WalkthroughRuns {
  readonly #parts: WalkthroughParts;

  constructor(parts: WalkthroughParts) {
    this.#parts = parts;
  }

  /** @returns a result each, in their order; `null` where it was stopped */
  async run(botId: number, timeZone: string, model: SharedModel): Promise<WalkthroughResult[] | null> {
    const { database, answering, encoding, jobs } = this.#parts;
    const walkthroughs = (await listWalkthroughs(database, botId)).map(({ walkthrough }) => walkthrough);
    if (walkthroughs.length === 0) return [];
    const results: WalkthroughResult[] = [];
    const job = await jobs.start(botId, { kind: 'walkthroughs', total: walkthroughs.length }, async (running) => {
      const messages = wordsOf(walkthroughs);
      const texts = await answering.run('bulk', 'textsOf', { model, messages, as: 'turns' });
      const all = await encoding.vectorsOf(texts, { progress: () => running.check() });
      for (const walkthrough of walkthroughs) {
        results.push(await this.#walk(botId, walkthrough, { model, now: localNow(timeZone), vectors: all }));
        running.progress(results.length);
      }
      return null;
    });
    try {
      await job.finished;
    } catch (error) {
      if (error instanceof StoppedError) return null;
      throw error;
    }
    return results;
  }

  /** One that cannot be run is told as failed, and the others run. */
  async #walk(
    botId: number,
    walkthrough: Walkthrough,
    given: { model: SharedModel; now: string; vectors: Vectors },
  ): Promise<WalkthroughResult> {
    try {
      return await this.#parts.answering.run('bulk', 'walk', { walkthrough, ...given });
    } catch (error) {
      this.#parts.report(error, botId);
      const faults = ['it could not be run: something in it cannot be read'];
      return { name: walkthrough.name, outcome: 'abandoned', slots: {}, passed: false, faults, transcript: [] };
    }
  }
}
