import { mkdir, open, readFile, rename, rm } from 'node:fs/promises';
import path from 'node:path';
import { LRUCache } from 'lru-cache';
import { lookAtModelFile, ModelFileError, type ModelFile } from '../../core/recognise/modelFile.js';

/** Memory that model files may take, in bytes; those last used stay. */
const MOST_MEMORY = 512 * 1024 * 1024;

const sizeOf = ({ bytes }: ModelFile): number => Math.min(bytes.length, MOST_MEMORY);

/** Model files in a folder, the last used of them in memory that threads share. */
export class ModelStore {
  readonly #folder: string | null;
  readonly #files = new LRUCache<string, ModelFile>({ maxSize: MOST_MEMORY, sizeCalculation: sizeOf });

  /** @param folder where the files lie; `null` keeps them in memory alone */
  constructor(folder: string | null) {
    this.#folder = folder;
  }

  /** Keeps a model file under a name. What is not wanted any more is to be let go by {@link remove}. */
  async keep(name: string, bytes: Uint8Array): Promise<ModelFile> {
    const file = lookAtModelFile(bytes);
    this.#files.set(name, file);
    if (this.#folder === null) return file;
    await mkdir(this.#folder, { recursive: true, mode: 0o700 });
    const target = path.join(this.#folder, name);
    const handle = await open(`${target}.new`, 'w', 0o600);
    try {
      await handle.writeFile(bytes);
      await handle.sync();
    } finally {
      await handle.close();
    }
    await rename(`${target}.new`, target);
    return file;
  }

  /** The model file of a name; `null` where there is none that this version reads. */
  async find(name: string): Promise<ModelFile | null> {
    const known = this.#files.get(name);
    if (known || this.#folder === null) return known ?? null;
    try {
      const bytes = await readFile(path.join(this.#folder, path.basename(name)));
      const shared = new Uint8Array(new SharedArrayBuffer(bytes.length));
      shared.set(bytes);
      const file = lookAtModelFile(shared);
      this.#files.set(name, file);
      return file;
    } catch (error) {
      const missing = (error as NodeJS.ErrnoException).code === 'ENOENT';
      if (missing || error instanceof ModelFileError) return null;
      throw error;
    }
  }

  /** Forgets what a file held, and takes it away. */
  async discard(name: string): Promise<void> {
    this.#files.delete(name);
    await this.remove(name);
  }

  /** Takes the file away. Whoever has just been given the model still finds it in memory. */
  async remove(name: string): Promise<void> {
    if (this.#folder !== null) await rm(path.join(this.#folder, path.basename(name)), { force: true });
  }
}
