import type { Kysely } from 'kysely';
import { vectorsByText } from '../../core/encode/encoder.js';
import type { Answering } from '../answering/answering.js';
import type { Database } from '../database/schema.js';
import { batchesOf } from '../slices.js';
import { findVectors, keepVectors } from '../repositories/vectors.js';

/** Texts handed to the thread at once; small enough that progress shows, a stop is prompt and others get their turn. */
const BATCH = 16;

/** Sentence vectors of many texts, from the database or from the encoder. */
export class EncodingService {
  readonly #database: Kysely<Database>;
  readonly #answering: Answering;

  constructor(database: Kysely<Database>, answering: Answering) {
    this.#database = database;
    this.#answering = answering;
  }

  /**
   * The vectors of many texts.
   * @param progress is told how many are done; throws to stop
   * @param keep whether they are kept for the next time
   */
  async vectorsOf(
    texts: readonly string[],
    { progress, keep = true }: { progress?: (done: number) => void; keep?: boolean } = {},
  ): Promise<Map<string, Float32Array>> {
    const different = [...new Set(texts)];
    const vectors = await findVectors(this.#database, different);
    const missing = different.filter((text) => !vectors.has(text));
    progress?.(vectors.size);
    for (const batch of batchesOf(missing, BATCH)) {
      const fresh = vectorsByText(batch, await this.#answering.run('bulk', 'encode', { texts: batch }));
      if (keep) await keepVectors(this.#database, fresh);
      for (const [text, vector] of fresh) vectors.set(text, vector);
      progress?.(vectors.size);
    }
    return vectors;
  }
}
