import { sql, type Kysely } from 'kysely';
import type { Logger } from 'pino';
import type { ModelState } from '../../core/contract/bot.js';
import type { Database } from '../database/schema.js';
import { listBots } from '../repositories/bots.js';
import type { ModelService } from './models.js';

/** How the application is. */
export interface Health {
  database: 'ok' | 'does not answer';
  /** The model of each bot; one that nobody has opened yet is at rest. */
  models: ({ bot: number; name: string } & (ModelState | { state: 'at rest' }))[];
}

/** Looks whether the application works. */
export class HealthService {
  readonly #database: Kysely<Database>;
  readonly #models: ModelService;
  readonly #log: Logger;

  constructor(database: Kysely<Database>, models: ModelService, log: Logger) {
    this.#database = database;
    this.#models = models;
    this.#log = log;
  }

  async tell(): Promise<Health> {
    try {
      await sql`select 1`.execute(this.#database);
      const bots = await listBots(this.#database);
      const state = (id: number) => this.#models.state(id) ?? { state: 'at rest' as const };
      return { database: 'ok', models: bots.map(({ id, name }) => ({ bot: id, name, ...state(id) })) };
    } catch (error) {
      this.#log.error({ err: error }, 'the database does not answer');
      return { database: 'does not answer', models: [] };
    }
  }
}
