import type { Kysely, Selectable } from 'kysely';
import { storedDocument, upgradeDocument } from '../../core/bot/upgrade.js';
import type { BotDocument } from '../../core/bot/document.js';
import type { KeptState } from '../../core/contract/prove.js';
import type { Database, KeptStateTable } from '../database/schema.js';

const summaryOf = (row: Omit<Selectable<KeptStateTable>, 'bot_id' | 'document'>): KeptState => ({
  id: row.id,
  name: row.name,
  revision: row.revision,
  keptAt: row.kept_at,
  before: row.before_act,
});

/** The states of a bot that were kept, the newest first, without what they hold. */
export async function listStates(db: Kysely<Database>, botId: number): Promise<KeptState[]> {
  const rows = await db
    .selectFrom('kept_state')
    .select(['id', 'name', 'revision', 'kept_at', 'before_act'])
    .where('bot_id', '=', botId)
    .orderBy('id', 'desc')
    .execute();
  return rows.map(summaryOf);
}

/** A state that is to be kept. */
export interface NewState extends Omit<KeptState, 'id' | 'keptAt'> {
  document: BotDocument;
  at: string;
}

/** Keeps a state of a bot by a name. @returns its number */
export async function keepState(
  db: Kysely<Database>,
  botId: number,
  { name, revision, before, document, at }: NewState,
): Promise<number> {
  const { id } = await db
    .insertInto('kept_state')
    .values({
      bot_id: botId,
      name,
      revision,
      kept_at: at,
      before_act: before,
      document: JSON.stringify(storedDocument(document)),
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
}

/** A bot as it was kept; `null` where there is no such state. */
export async function readState(
  db: Kysely<Database>,
  botId: number,
  id: number,
): Promise<(KeptState & { document: BotDocument }) | null> {
  const row = await db
    .selectFrom('kept_state')
    .selectAll()
    .where('bot_id', '=', botId)
    .where('id', '=', id)
    .executeTakeFirst();
  if (!row) return null;
  return { ...summaryOf(row), document: upgradeDocument(JSON.parse(row.document)) };
}

/** @returns whether there was such a state */
export async function deleteState(db: Kysely<Database>, botId: number, id: number): Promise<boolean> {
  const { numDeletedRows } = await db
    .deleteFrom('kept_state')
    .where('bot_id', '=', botId)
    .where('id', '=', id)
    .executeTakeFirst();
  return numDeletedRows > 0n;
}
