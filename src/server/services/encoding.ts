import type { Kysely } from 'kysely';
import type { Vectors } from '../../core/encode/encoder.js';
import type { EncoderThreads } from '../encoder/threads.js';
import type { Database } from '../database/schema.js';
import { batchesOf } from '../slices.js';
import { findVectors, forgetOtherVectors, keepVectors } from '../repositories/vectors.js';
import type { JobService } from './jobs.js';

/** Texts handed to the thread at once; small enough that progress shows, a stop is prompt and others get their turn. */
const BATCH = 16;
/** Work on more texts than that is told of while it goes on. */
const MUCH = 64;

/** Sentence vectors of many texts, from the database or from the encoder. */
export class EncodingService {
  readonly #database: Kysely<Database>;
  readonly #encoder: EncoderThreads;
  readonly #jobs: JobService;

  constructor(database: Kysely<Database>, encoder: EncoderThreads, jobs: JobService) {
    this.#database = database;
    this.#encoder = encoder;
    this.#jobs = jobs;
  }

  /** Forgets what an encoder before this one made of texts. @returns how many vectors */
  open(): Promise<number> {
    return forgetOtherVectors(this.#database);
  }

  /** The vectors that a bot is taught with; where many are to be made, screens are told how far that is. */
  async vectorsForBot(botId: number, texts: readonly string[]): Promise<Vectors> {
    const known = await findVectors(this.#database, texts);
    const missing = texts.filter((text) => !known.has(text));
    if (missing.length <= MUCH) return new Map([...known, ...(await this.vectorsOf(missing))]);
    let made: Vectors = new Map();
    const { finished } = await this.#jobs.start(botId, { kind: 'encoding', total: missing.length }, async (job) => {
      made = await this.vectorsOf(missing, { progress: (done) => job.progress(done) });
      return null;
    });
    await finished;
    return new Map([...known, ...made]);
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
      const fresh = await this.#encoder.encode('bulk', batch);
      if (keep) await keepVectors(this.#database, fresh);
      for (const [text, vector] of fresh) vectors.set(text, vector);
      progress?.(vectors.size);
    }
    return vectors;
  }
}
