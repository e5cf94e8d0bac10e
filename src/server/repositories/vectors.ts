import type { Kysely } from 'kysely';
import { ENCODER_VERSION } from '../../core/encode/encoder.js';
import type { Database } from '../database/schema.js';
import { inBatches, pause } from '../slices.js';

/** Vectors that are forgotten at a stretch. */
const MOST_FORGOTTEN = 500;

/** The sentence vectors already known, of those asked for. */
export async function findVectors(db: Kysely<Database>, texts: readonly string[]): Promise<Map<string, Float32Array>> {
  const found = new Map<string, Float32Array>();
  await inBatches(texts, async (batch) => {
    const rows = await db
      .selectFrom('vector')
      .select(['text', 'vector'])
      .where('encoder', '=', ENCODER_VERSION)
      .where('text', 'in', batch)
      .execute();
    for (const row of rows) found.set(row.text, new Float32Array(row.vector.slice().buffer));
  });
  return found;
}

/** Forgets the vectors of other encoders, which mean nothing beside those of this one. @returns how many */
export async function forgetOtherVectors(db: Kysely<Database>): Promise<number> {
  let forgotten = 0;
  for (;;) {
    const { numDeletedRows } = await db
      .deleteFrom('vector')
      .where('text', 'in', (query) =>
        query.selectFrom('vector').select('text').where('encoder', '!=', ENCODER_VERSION).limit(MOST_FORGOTTEN),
      )
      .where('encoder', '!=', ENCODER_VERSION)
      .executeTakeFirstOrThrow();
    if (numDeletedRows === 0n) return forgotten;
    forgotten += Number(numDeletedRows);
    await pause();
  }
}

/** Keeps sentence vectors for the next time. */
export async function keepVectors(db: Kysely<Database>, vectors: ReadonlyMap<string, Float32Array>): Promise<void> {
  const rows = [...vectors].map(([text, vector]) => ({
    text,
    encoder: ENCODER_VERSION,
    vector: new Uint8Array(vector.buffer, vector.byteOffset, vector.byteLength),
  }));
  await inBatches(rows, (batch) =>
    db
      .insertInto('vector')
      .values(batch)
      .onConflict((conflict) => conflict.doNothing())
      .execute(),
  );
}
