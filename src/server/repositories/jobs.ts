import type { Kysely } from 'kysely';
import type { JobKind, JobView } from '../../core/contract/job.js';
import type { Database } from '../database/schema.js';

/** Jobs of a bot that stay in the table. */
const MOST_KEPT = 200;

export async function beginJob(
  db: Kysely<Database>,
  {
    botId,
    kind,
    subject,
    total,
    startedAt,
  }: { botId: number; kind: JobKind; subject?: number; total: number; startedAt: string },
): Promise<number> {
  const { id } = await db
    .insertInto('job')
    .values({
      bot_id: botId,
      kind,
      subject: subject ?? null,
      state: 'running',
      done: 0,
      total,
      message: null,
      result: null,
      started_at: startedAt,
      ended_at: null,
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  await db
    .deleteFrom('job')
    .where('bot_id', '=', botId)
    .where('id', '<=', id - MOST_KEPT)
    .execute();
  return id;
}

export async function endJob(
  db: Kysely<Database>,
  { id, state, done, message, result }: JobView,
  at: string,
): Promise<void> {
  await db.updateTable('job').set({ state, done, message, result, ended_at: at }).where('id', '=', id).execute();
}

/** Says of jobs that were running when the program ended that they were cut short. @returns how many */
export async function endUnfinishedJobs(db: Kysely<Database>, at: string): Promise<number> {
  const message = 'The program ended while this ran. What it worked on is as it was; start it again.';
  const { numUpdatedRows } = await db
    .updateTable('job')
    .set({ state: 'cut short', message, ended_at: at })
    .where('state', '=', 'running')
    .executeTakeFirst();
  return Number(numUpdatedRows);
}

/** The last job of a kind that something of a bot was the subject of. */
export async function lastJob(
  db: Kysely<Database>,
  { botId, kind, subject }: { botId: number; kind: JobKind; subject: number },
): Promise<JobView | null> {
  const last = await db
    .selectFrom('job')
    .select(({ fn }) => fn.max<number | null>('id').as('id'))
    .where('bot_id', '=', botId)
    .where('kind', '=', kind)
    .where('subject', '=', subject)
    .executeTakeFirst();
  return typeof last?.id === 'number' ? readJob(db, last.id) : null;
}

export async function readJob(db: Kysely<Database>, id: number): Promise<JobView | null> {
  const row = await db.selectFrom('job').selectAll().where('id', '=', id).executeTakeFirst();
  if (!row || row.bot_id === null) return null;
  return {
    id: row.id,
    botId: row.bot_id,
    kind: row.kind as JobKind,
    subject: row.subject,
    state: row.state as JobView['state'],
    done: row.done,
    total: row.total,
    secondsLeft: null,
    message: row.message,
    result: row.result,
    startedAt: row.started_at,
  };
}
