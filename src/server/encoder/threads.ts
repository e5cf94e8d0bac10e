import { availableParallelism } from 'node:os';
import { LRUCache } from 'lru-cache';
import encodeWorker from '../../workers/encode.worker.ts?nodeWorker';
import { startThreads } from '../threads/pool.js';
import type { EncodeTask } from './thread.js';
import { encoderFolder } from './files.js';

/** Threads that encode; each holds the weights, some 90 MB with what they work in. */
const MOST_THREADS = 2;
/** Texts handed to a thread at once: few, so that a person's text waits for few others. */
const BATCH = 4;
/** Vectors of what was lately read that stay in memory: words come again, and so does a text that is looked into. */
const MOST_RECENT = 6000;

interface Wanted {
  text: string;
  give: (vector: Float32Array) => void;
  fail: (error: unknown) => void;
}

/**
 * Threads that turn texts into vectors. Texts wait in two lines: those of people go first, and all threads work on one
 * line where the other is empty. A text that several wait for is encoded once.
 */
export class EncoderThreads {
  readonly #count = Math.max(1, Math.min(MOST_THREADS, availableParallelism()));
  readonly #threads = startThreads<EncodeTask, Float32Array[]>(encodeWorker, { most: this.#count, native: true });
  readonly #folder = encoderFolder();
  readonly #recent = new LRUCache<string, Float32Array>({ max: MOST_RECENT });
  readonly #coming = new Map<string, Promise<Float32Array>>();
  readonly #lines: Record<'person' | 'bulk', Wanted[]> = { person: [], bulk: [] };
  #busy = 0;

  /** The vectors of texts, each encoded once. @param waiting who waits for them */
  async encode(waiting: 'person' | 'bulk', texts: readonly string[]): Promise<Map<string, Float32Array>> {
    const different = [...new Set(texts)];
    const coming = different.map((text) => this.#vectorOf(waiting, text));
    this.#fill();
    const vectors = await Promise.all(coming);
    return new Map(different.map((text, at) => [text, vectors[at]!]));
  }

  /** A vector that is known, that is being made, or that is asked for now. */
  async #vectorOf(waiting: 'person' | 'bulk', text: string): Promise<Float32Array> {
    return this.#recent.get(text) ?? this.#coming.get(text) ?? this.#want(waiting, text);
  }

  #want(waiting: 'person' | 'bulk', text: string): Promise<Float32Array> {
    const made = new Promise<Float32Array>((give, fail) => this.#lines[waiting].push({ text, give, fail }));
    this.#coming.set(text, made);
    const forget = () => this.#coming.delete(text);
    made.then((vector) => this.#recent.set(text, vector)).then(forget, forget);
    return made;
  }

  #fill(): void {
    while (this.#busy < this.#count) {
      const line = this.#lines.person.length > 0 ? this.#lines.person : this.#lines.bulk;
      if (line.length === 0) return;
      // What waits is shared out among the threads that are free.
      const batch = line.splice(0, Math.min(BATCH, Math.ceil(line.length / (this.#count - this.#busy))));
      this.#busy++;
      void this.#encode(batch).finally(() => {
        this.#busy--;
        this.#fill();
      });
    }
  }

  async #encode(batch: readonly Wanted[]): Promise<void> {
    try {
      const texts = batch.map(({ text }) => text);
      const vectors = await this.#threads.run({ folder: this.#folder, texts }, { name: 'encode' });
      batch.forEach(({ give }, at) => give(vectors[at]!));
    } catch (error) {
      for (const { fail } of batch) fail(error);
    }
  }

  close(): Promise<void> {
    return this.#threads.destroy();
  }
}
