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
    .where('hidden', '=', 0)
    .orderBy('id')
    .execute();
  return rows.map(({ id, body }) => ({ id, walkthrough: JSON.parse(body) as Walkthrough }));
}

/** @returns their numbers */
export async function addWalkthroughs(
  db: Kysely<Database>,
  botId: number,
  walkthroughs: readonly Walkthrough[],
): Promise<number[]> {
  if (walkthroughs.length === 0) return [];
  const rows = await db
    .insertInto('walkthrough')
    .values(
      walkthroughs.map((walkthrough) => ({ bot_id: botId, name: walkthrough.name, body: JSON.stringify(walkthrough) })),
    )
    .returning('id')
    .execute();
  return rows.map(({ id }) => id);
}
