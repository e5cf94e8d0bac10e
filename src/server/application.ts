import { pino, type Logger } from 'pino';
import type { Kysely } from 'kysely';
import { Answering } from './answering/answering.js';
import { lockFolder } from './database/lock.js';
import { makePrivateFolder, openDatabase } from './database/open.js';
import type { Database } from './database/schema.js';
import { EventHub } from './events.js';
import { FileThread } from './files/files.js';
import { ModelStore } from './models/store.js';
import { databaseFile, dataFolder, modelFolder } from './paths.js';
import { AfterEdits } from './services/afterEdits.js';
import { BotService } from './services/bots.js';
import { ConversationService } from './services/conversations.js';
import { EncodingService } from './services/encoding.js';
import { HealthService } from './services/health.js';
import { JobService } from './services/jobs.js';
import { ModelService } from './services/models.js';
import { TestRunService } from './services/testRuns.js';
import { TrialService } from './services/trials.js';
import { WalkthroughRuns } from './services/walkthroughRuns.js';
import { Trouble } from './trouble.js';

/** Everything the routes call. */
export interface Application {
  database: Kysely<Database>;
  log: Logger;
  bots: BotService;
  models: ModelService;
  conversations: ConversationService;
  encoding: EncodingService;
  testRuns: TestRunService;
  trials: TrialService;
  jobs: JobService;
  events: EventHub;
  health: HealthService;
  close(): Promise<void>;
}

/** What the services are put into. */
export interface Surroundings {
  log: Logger;
  /** The folder of model files; `null` for memory alone. */
  models: string | null;
  /** Is told of work in the background that failed. */
  report: (error: unknown, botId: number) => void;
  /** How writing goes. */
  trouble?: Trouble;
  /** How long a bot must be left alone for an edit session to be over, in milliseconds. */
  quiet?: number;
}

/** Puts the services together over a database. */
export function assemble(
  database: Kysely<Database>,
  { log, models: folder, report, trouble = new Trouble(), quiet }: Surroundings,
): Application {
  const answering = new Answering();
  const events = new EventHub();
  const jobs = new JobService({ database, events, report });
  const encoding = new EncodingService(database, answering.encoder, jobs);
  const walkthroughRuns = new WalkthroughRuns({ database, answering, encoding, jobs, report });
  const files = new FileThread();
  const store = new ModelStore(folder);
  const models = new ModelService({ database, answering, encoding, store, events, walkthroughRuns, report });
  const bots = new BotService({ database, models, events, files, jobs });
  const testRuns = new TestRunService({ database, answering, models, encoding, jobs });
  const afterEdits = new AfterEdits({ database, bots, testRuns, report }, quiet);
  models.whenCurrent((botId) => afterEdits.note(botId));
  return {
    database,
    log,
    models,
    jobs,
    events,
    encoding,
    bots,
    conversations: new ConversationService(database, models),
    testRuns,
    trials: new TrialService({ database, answering, models, encoding, jobs }),
    health: new HealthService(database, models, log, trouble),
    async close() {
      afterEdits.close();
      events.close();
      jobs.close();
      await models.close();
      await answering.close();
      await files.close();
    },
  };
}

/** After a change of the encoder, its texts are encoded and its bots taught anew, in the background. */
async function renew({ encoding, bots, models, log }: Application, report: Surroundings['report']): Promise<void> {
  const forgotten = await encoding.open();
  if (forgotten === 0) return;
  log.info({ forgotten }, 'the sentence encoder is another one: texts are encoded and bots taught anew');
  for (const { id } of await bots.list()) {
    try {
      await models.follow(await bots.get(id));
    } catch (error) {
      report(error, id);
    }
  }
}

async function open(): Promise<Application> {
  const log = pino({ name: 'reed-gate', level: process.env['LOG_LEVEL'] ?? 'info' });
  const folder = dataFolder();
  makePrivateFolder(folder);
  const { PORT: port, HOST: host } = process.env;
  const lock = lockFolder(folder, `process ${process.pid}, http://${host ?? 'localhost'}:${port ?? ''}`);
  const trouble = new Trouble();
  const database = await openDatabase(databaseFile(), (error) => trouble.note(error));
  const report = (error: unknown, botId: number) => log.error({ err: error, botId }, 'background work failed');
  const app = assemble(database, { log, models: modelFolder(), report, trouble });
  const cutShort = await app.jobs.open();
  await app.bots.open(report);
  renew(app, report).catch((error: unknown) =>
    log.error({ err: error }, 'vectors of the encoder before were not forgotten'),
  );
  if (cutShort > 0) log.warn({ jobs: cutShort }, 'work was cut short when the program ended last');
  return {
    ...app,
    async close() {
      await app.close();
      await database.destroy();
      lock.release();
    },
  };
}

let opened: Promise<Application> | null = null;
/** The development server loads this module anew when it is changed; what the one before opened is found here. */
const kept = globalThis as typeof globalThis & { reedGate?: Promise<Application> | null };

async function openInPlaceOf(before: Promise<Application> | null | undefined): Promise<Application> {
  const old = await before?.catch(() => null);
  await old?.close();
  return open();
}

/** The application, opened once a process. */
export function application(): Promise<Application> {
  opened ??= kept.reedGate = openInPlaceOf(kept.reedGate);
  return opened;
}

/** Closes the application if it was opened: workers end, and the database is left tidy. */
export async function closeApplication(): Promise<void> {
  const app = await opened;
  opened = kept.reedGate = null;
  await app?.close();
}
