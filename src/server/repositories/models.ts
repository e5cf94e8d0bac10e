import type { Kysely } from 'kysely';
import type { HeldOutMeasure } from '../../core/measure/evaluate.js';
import type { Database } from '../database/schema.js';

/** Where the model of a bot lies, and what is told of it without opening it. */
export interface StoredModel {
  revision: number;
  /** Its name in the folder of models. */
  file: string;
  heldOut: HeldOutMeasure;
  trainedAt: string;
}

const HELD_OUT_VERSION = 1;

/** The last model trained for a bot. One whose figures this version cannot read counts as none. */
export async function findModel(db: Kysely<Database>, botId: number): Promise<StoredModel | null> {
  const row = await db.selectFrom('model').selectAll().where('bot_id', '=', botId).executeTakeFirst();
  if (!row) return null;
  const { version, measure } = JSON.parse(row.held_out) as { version: number; measure: HeldOutMeasure };
  if (version !== HELD_OUT_VERSION) return null;
  return { revision: row.revision, file: row.file, heldOut: measure, trainedAt: row.trained_at };
}

export async function keepModel(db: Kysely<Database>, botId: number, stored: StoredModel): Promise<void> {
  const columns = {
    revision: stored.revision,
    file: stored.file,
    held_out: JSON.stringify({ version: HELD_OUT_VERSION, measure: stored.heldOut }),
    trained_at: stored.trainedAt,
  };
  await db
    .insertInto('model')
    .values({ bot_id: botId, ...columns })
    .onConflict((conflict) => conflict.column('bot_id').doUpdateSet(columns))
    .execute();
}
