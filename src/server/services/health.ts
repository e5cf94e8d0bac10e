import type { Kysely } from 'kysely';
import type { Logger } from 'pino';
import type { ModelState } from '../../core/contract/bot.js';
import type { Database } from '../database/schema.js';
import { listBots } from '../repositories/bots.js';
import { troubleOf, type Trouble } from '../trouble.js';
import type { ModelService } from './models.js';

/** How the application is. */
export interface Health {
  /** `ok`, or a sentence about what is wrong. */
  database: string;
  /** The model of each bot; one that nobody has opened yet is at rest. */
  models: ({ bot: number; name: string } & (ModelState | { state: 'at rest' }))[];
}

/** Looks whether the application works. */
export class HealthService {
  readonly #database: Kysely<Database>;
  readonly #models: ModelService;
  readonly #log: Logger;
  readonly #trouble: Trouble;

  constructor(database: Kysely<Database>, models: ModelService, log: Logger, trouble: Trouble) {
    this.#database = database;
    this.#models = models;
    this.#log = log;
    this.#trouble = trouble;
  }

  async tell(): Promise<Health> {
    try {
      const bots = await listBots(this.#database);
      const state = (id: number) => this.#models.state(id) ?? { state: 'at rest' as const };
      return {
        database: this.#trouble.now ?? 'ok',
        models: bots.map(({ id, name }) => ({ bot: id, name, ...state(id) })),
      };
    } catch (error) {
      this.#log.error({ err: error }, 'the database does not answer');
      return { database: troubleOf(error) ?? 'The database does not answer.', models: [] };
    }
  }
}
