import type { Kysely } from 'kysely';
import { LRUCache } from 'lru-cache';
import { vectorsByText } from '../../core/encode/encoder.js';
import encodeWorker from '../../workers/encode.worker.ts?nodeWorker';
import type { Database } from '../database/schema.js';
import { encoderFolder } from '../encoder/load.js';
import { findVectors, keepVectors } from '../repositories/vectors.js';
import { startWorker, type WorkerThread } from '../workers/pool.js';

interface EncodeTask {
  folder: string;
  texts: string[];
}

/** Texts handed to the worker at once in bulk; small enough that progress shows and a stop is prompt. */
const BULK = 32;

/** Vectors of what people lately typed that stay in memory: words come again, and so does a text that is looked into. */
const MOST_RECENT = 4000;

/** Sentence vectors, from the cache or from the encoder. */
export class EncodingService {
  readonly #database: Kysely<Database>;
  readonly #folder = encoderFolder();
  /** One thread answers people, the other does bulk work, so that nobody waits behind a test run. */
  readonly #interactive: WorkerThread<EncodeTask, Float32Array[]>;
  readonly #bulk: WorkerThread<EncodeTask, Float32Array[]>;
  readonly #recent = new LRUCache<string, Float32Array>({ max: MOST_RECENT });

  constructor(database: Kysely<Database>) {
    this.#database = database;
    this.#interactive = startWorker(encodeWorker);
    this.#bulk = startWorker(encodeWorker);
  }

  /** The vectors of texts that a person waits for. They are not kept in the database: most are typed once. */
  async vectorsNow(texts: readonly string[]): Promise<Map<string, Float32Array>> {
    const vectors = new Map<string, Float32Array>();
    const add = (found: ReadonlyMap<string, Float32Array>) => {
      for (const [text, vector] of found) {
        vectors.set(text, vector);
        this.#recent.set(text, vector);
      }
    };
    for (const text of texts) {
      const vector = this.#recent.get(text);
      if (vector) vectors.set(text, vector);
    }
    const missing = () => [...new Set(texts)].filter((text) => !vectors.has(text));
    if (missing().length > 0) add(await findVectors(this.#database, missing()));
    const unknown = missing();
    if (unknown.length > 0)
      add(vectorsByText(unknown, await this.#interactive.run({ folder: this.#folder, texts: unknown })));
    return vectors;
  }

  /**
   * The vectors of many texts, kept for the next time.
   * @param progress is told how many are done; throws to stop
   */
  async vectorsOf(texts: readonly string[], progress?: (done: number) => void): Promise<Map<string, Float32Array>> {
    const vectors = await findVectors(this.#database, texts);
    const missing = [...new Set(texts)].filter((text) => !vectors.has(text));
    progress?.(texts.length - missing.length);
    for (let start = 0; start < missing.length; start += BULK) {
      const batch = missing.slice(start, start + BULK);
      const fresh = vectorsByText(batch, await this.#bulk.run({ folder: this.#folder, texts: batch }));
      await keepVectors(this.#database, fresh);
      for (const [text, vector] of fresh) vectors.set(text, vector);
      progress?.(texts.length - missing.length + start + batch.length);
    }
    return vectors;
  }

  async close(): Promise<void> {
    await Promise.all([this.#interactive.destroy(), this.#bulk.destroy()]);
  }
}
