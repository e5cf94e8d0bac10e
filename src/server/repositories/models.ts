import type { Kysely } from 'kysely';
import type { BotDocument } from '../../core/bot/document.js';
import type { RecogniserModel } from '../../core/recognise/recogniser.js';
import type { Database } from '../database/schema.js';
import { modelFromBytes } from '../modelBytes.js';

/** A trained model with the document it was trained on. */
export interface StoredModel {
  revision: number;
  document: BotDocument;
  model: RecogniserModel;
  trainedAt: string;
}

/** The last model trained for a bot. One that this version cannot read counts as none. */
export async function loadModel(db: Kysely<Database>, botId: number): Promise<StoredModel | null> {
  const row = await db.selectFrom('model').selectAll().where('bot_id', '=', botId).executeTakeFirst();
  const model = row ? modelFromBytes(row.data) : null;
  if (!row || !model) return null;
  return {
    revision: row.revision,
    document: JSON.parse(row.document) as BotDocument,
    model,
    trainedAt: row.trained_at,
  };
}

/** @param bytes the model's */
export async function saveModel(
  db: Kysely<Database>,
  botId: number,
  stored: Omit<StoredModel, 'model'>,
  bytes: Uint8Array,
): Promise<void> {
  const columns = {
    revision: stored.revision,
    document: JSON.stringify(stored.document),
    data: bytes,
    trained_at: stored.trainedAt,
  };
  await db
    .insertInto('model')
    .values({ bot_id: botId, ...columns })
    .onConflict((conflict) => conflict.column('bot_id').doUpdateSet(columns))
    .execute();
}
