import type { Kysely } from 'kysely';
import type { Walkthrough } from '../../core/converse/walkthrough.js';
import type { Database } from '../database/schema.js';

export interface StoredWalkthrough {
  id: number;
  walkthrough: Walkthrough;
}

export async function listWalkthroughs(db: Kysely<Database>, botId: number): Promise<StoredWalkthrough[]> {
  const rows = await db
    .selectFrom('walkthrough')
    .select(['id', 'body'])
    .where('bot_id', '=', botId)
    .orderBy('id')
    .execute();
  return rows.map(({ id, body }) => ({ id, walkthrough: JSON.parse(body) as Walkthrough }));
}

export async function addWalkthroughs(
  db: Kysely<Database>,
  botId: number,
  walkthroughs: readonly Walkthrough[],
): Promise<void> {
  if (walkthroughs.length === 0) return;
  await db
    .insertInto('walkthrough')
    .values(
      walkthroughs.map((walkthrough) => ({ bot_id: botId, name: walkthrough.name, body: JSON.stringify(walkthrough) })),
    )
    .execute();
}

export async function deleteWalkthrough(db: Kysely<Database>, botId: number, id: number): Promise<void> {
  await db.deleteFrom('walkthrough').where('bot_id', '=', botId).where('id', '=', id).execute();
}
