import filesWorker from '../../workers/files.worker.ts?nodeWorker';
import type { BotDocument } from '../../core/bot/document.js';
import type { BotFileFormat } from '../../core/formats/botFile.js';
import { InputError } from '../errors.js';
import { startThreads, TimeLimitError, type Threads } from '../threads/pool.js';
import { readSmall, type FileContents, type FileDone, type FileKind, type FileTask, type RequestKind } from './read.js';

/** Memory that a file may take, in MB. */
const MOST_MEMORY = 768;
/** How long it may take once a thread has taken it, in milliseconds. */
const MOST_TIME = 60_000;
/** Files that are read at once, so that a large one holds up nobody. */
const MOST_READING = 2;

/**
 * Reads and writes files in threads of their own, which may take so much memory and time and no more. What is written
 * does not wait behind what is read.
 */
export class FileThread {
  readonly #reading: Threads<FileTask, FileDone> = startThreads(filesWorker, {
    memory: MOST_MEMORY,
    most: MOST_READING,
  });
  readonly #writing: Threads<FileTask, FileDone> = startThreads(filesWorker, { memory: MOST_MEMORY });

  /** @throws InputError with the faults of the file, or where it takes too much */
  async read<Kind extends FileKind>(kind: Kind, source: string): Promise<FileContents[Kind]> {
    return (await this.#run(this.#reading, { read: kind, source }, 'The file')) as FileContents[Kind];
  }

  /** Reads the body of a request; one that holds much is read in a thread. @throws InputError */
  async readRequest<Kind extends RequestKind>(kind: Kind, source: string): Promise<FileContents[Kind]> {
    const small = readSmall(kind, source);
    return small ?? ((await this.#run(this.#reading, { read: kind, source }, 'The request')) as FileContents[Kind]);
  }

  /** The file of a bot. @throws InputError where it takes too much */
  async write(document: BotDocument, format: BotFileFormat): Promise<string> {
    return (await this.#run(this.#writing, { write: document, format }, 'The bot')) as string;
  }

  async #run(threads: Threads<FileTask, FileDone>, task: FileTask, what: string): Promise<unknown> {
    const name = 'read' in task ? `read ${task.read}` : 'write bot';
    const done = await threads.run(task, { name, limit: MOST_TIME }).catch((error: unknown) => {
      if (error instanceof TimeLimitError) throw tooMuch(what, 'time');
      const { code } = ((error as Error).cause ?? {}) as { code?: string };
      if (code === 'ERR_WORKER_OUT_OF_MEMORY') throw tooMuch(what, 'memory');
      throw error;
    });
    if (!done.ok) throw new InputError(done.message, done.faults, done.number);
    return done.is;
  }

  async close(): Promise<void> {
    await Promise.all([this.#reading.destroy(), this.#writing.destroy()]);
  }
}

const tooMuch = (what: string, of: string): InputError =>
  new InputError(`${what} takes too much ${of}. Divide it and do it in parts. Nothing was changed.`);
