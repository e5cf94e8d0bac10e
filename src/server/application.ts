import { pino, type Logger } from 'pino';
import type { Kysely } from 'kysely';
import { openDatabase } from './database/open.js';
import type { Database } from './database/schema.js';
import { databaseFile } from './paths.js';
import { BotService } from './services/bots.js';
import { ConversationService } from './services/conversations.js';
import { EncodingService } from './services/encoding.js';
import { HealthService } from './services/health.js';
import { ModelService } from './services/models.js';
import { TestRunService } from './services/testRuns.js';

/** Everything the routes call. */
export interface Application {
  database: Kysely<Database>;
  log: Logger;
  bots: BotService;
  models: ModelService;
  conversations: ConversationService;
  testRuns: TestRunService;
  health: HealthService;
  close(): Promise<void>;
}

async function open(): Promise<Application> {
  const log = pino({ name: 'reed-gate', level: process.env['LOG_LEVEL'] ?? 'info' });
  const database = await openDatabase(databaseFile());
  const report = (error: unknown, botId: number) => log.error({ err: error, botId }, 'background work failed');
  const encoding = new EncodingService(database);
  const models = new ModelService(database, encoding, report);
  return {
    database,
    log,
    models,
    bots: new BotService(database, models),
    conversations: new ConversationService(database, models),
    testRuns: new TestRunService(database, models, encoding, report),
    health: new HealthService(database, models, log),
    async close() {
      await models.close();
      await encoding.close();
      await database.destroy();
    },
  };
}

let opened: Promise<Application> | null = null;

/** The application, opened once a process. */
export function application(): Promise<Application> {
  opened ??= open();
  return opened;
}

/** Closes the application if it was opened: workers end, and the database is left tidy. */
export async function closeApplication(): Promise<void> {
  const app = await opened;
  opened = null;
  await app?.close();
}
