import { deserialize, serialize } from 'node:v8';
import type { Kysely } from 'kysely';
import type { BotDocument } from '../../core/bot/document.js';
import { MODEL_VERSION } from '../../core/recognise/intentModel.js';
import type { RecogniserModel } from '../../core/recognise/recogniser.js';
import type { Database } from '../database/schema.js';

/** A trained model with the document it was trained on. */
export interface StoredModel {
  revision: number;
  document: BotDocument;
  model: RecogniserModel;
  trainedAt: string;
}

/** Reads a model's bytes; `null` where they are no model of this version. */
function readModel(data: Uint8Array): RecogniserModel | null {
  let value: unknown;
  try {
    value = deserialize(data);
  } catch {
    // Bytes of another Node version, or damaged: the bot trains a new model.
    return null;
  }
  return (value as Partial<RecogniserModel> | null)?.version === MODEL_VERSION ? (value as RecogniserModel) : null;
}

/** The last model trained for a bot. One that this version cannot read counts as none. */
export async function loadModel(db: Kysely<Database>, botId: number): Promise<StoredModel | null> {
  const row = await db.selectFrom('model').selectAll().where('bot_id', '=', botId).executeTakeFirst();
  const model = row ? readModel(row.data) : null;
  if (!row || !model) return null;
  return {
    revision: row.revision,
    document: JSON.parse(row.document) as BotDocument,
    model,
    trainedAt: row.trained_at,
  };
}

export async function saveModel(db: Kysely<Database>, botId: number, stored: StoredModel): Promise<void> {
  const columns = {
    revision: stored.revision,
    document: JSON.stringify(stored.document),
    data: serialize(stored.model),
    trained_at: stored.trainedAt,
  };
  await db
    .insertInto('model')
    .values({ bot_id: botId, ...columns })
    .onConflict((conflict) => conflict.column('bot_id').doUpdateSet(columns))
    .execute();
}
