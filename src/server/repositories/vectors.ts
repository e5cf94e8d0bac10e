import type { Kysely } from 'kysely';
import { ENCODER_VERSION } from '../../core/encode/encoder.js';
import type { Database } from '../database/schema.js';

const BATCH = 500;

/** The sentence vectors already known, of those asked for. */
export async function findVectors(db: Kysely<Database>, texts: readonly string[]): Promise<Map<string, Float32Array>> {
  const found = new Map<string, Float32Array>();
  for (let start = 0; start < texts.length; start += BATCH) {
    const rows = await db
      .selectFrom('vector')
      .select(['text', 'vector'])
      .where('encoder', '=', ENCODER_VERSION)
      .where('text', 'in', texts.slice(start, start + BATCH))
      .execute();
    for (const row of rows) found.set(row.text, new Float32Array(row.vector.slice().buffer));
  }
  return found;
}

/** Keeps sentence vectors for the next time. */
export async function keepVectors(db: Kysely<Database>, vectors: ReadonlyMap<string, Float32Array>): Promise<void> {
  const rows = [...vectors].map(([text, vector]) => ({
    text,
    encoder: ENCODER_VERSION,
    vector: new Uint8Array(vector.buffer, vector.byteOffset, vector.byteLength),
  }));
  for (let start = 0; start < rows.length; start += BATCH) {
    await db
      .insertInto('vector')
      .values(rows.slice(start, start + BATCH))
      .onConflict((conflict) => conflict.doNothing())
      .execute();
  }
}
