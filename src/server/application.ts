import { pino, type Logger } from 'pino';
import type { Kysely } from 'kysely';
import { Answering } from './answering/answering.js';
import { openDatabase } from './database/open.js';
import type { Database } from './database/schema.js';
import { EventHub } from './events.js';
import { ModelStore } from './models/store.js';
import { databaseFile, modelFolder } from './paths.js';
import { BotService } from './services/bots.js';
import { ConversationService } from './services/conversations.js';
import { EncodingService } from './services/encoding.js';
import { HealthService } from './services/health.js';
import { JobService } from './services/jobs.js';
import { ModelService } from './services/models.js';
import { TestRunService } from './services/testRuns.js';
import { WalkthroughRuns } from './services/walkthroughRuns.js';

/** Everything the routes call. */
export interface Application {
  database: Kysely<Database>;
  log: Logger;
  bots: BotService;
  models: ModelService;
  conversations: ConversationService;
  encoding: EncodingService;
  testRuns: TestRunService;
  jobs: JobService;
  events: EventHub;
  health: HealthService;
  close(): Promise<void>;
}

/** Puts the services together over a database. @param models the folder of model files; `null` for memory alone */
export function assemble(
  database: Kysely<Database>,
  {
    log,
    models: folder,
    report,
  }: { log: Logger; models: string | null; report: (error: unknown, botId: number) => void },
): Application {
  const answering = new Answering();
  const encoding = new EncodingService(database, answering);
  const events = new EventHub();
  const jobs = new JobService({ database, events, report });
  const walkthroughRuns = new WalkthroughRuns({ database, answering, encoding, jobs, report });
  const store = new ModelStore(folder);
  const models = new ModelService({ database, answering, encoding, store, events, walkthroughRuns, report });
  return {
    database,
    log,
    models,
    jobs,
    events,
    encoding,
    bots: new BotService(database, models, events),
    conversations: new ConversationService(database, models),
    testRuns: new TestRunService({ database, answering, models, encoding, jobs }),
    health: new HealthService(database, models, log),
    async close() {
      events.close();
      jobs.close();
      await models.close();
      await answering.close();
    },
  };
}

async function open(): Promise<Application> {
  const log = pino({ name: 'reed-gate', level: process.env['LOG_LEVEL'] ?? 'info' });
  const database = await openDatabase(databaseFile());
  const report = (error: unknown, botId: number) => log.error({ err: error, botId }, 'background work failed');
  const app = assemble(database, { log, models: modelFolder(), report });
  const cutShort = await app.jobs.open();
  if (cutShort > 0) log.warn({ jobs: cutShort }, 'work was cut short when the program ended last');
  return {
    ...app,
    async close() {
      await app.close();
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
