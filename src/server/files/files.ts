import filesWorker from '../../workers/files.worker.ts?nodeWorker';
import type { BotDocument } from '../../core/bot/document.js';
import type { BotFileFormat } from '../../core/formats/botFile.js';
import { InputError } from '../errors.js';
import { startThreads, type Threads } from '../threads/pool.js';
import type { FileContents, FileDone, FileKind, FileTask } from './read.js';

/** Memory that a file may take, in MB. */
const MOST_MEMORY = 768;
/** How long it may take, in milliseconds. */
const MOST_TIME = 60_000;

/** Reads and writes files in a thread of its own, which may take so much memory and time and no more. */
export class FileThread {
  readonly #threads: Threads<FileTask, FileDone> = startThreads(filesWorker, { memory: MOST_MEMORY });

  /** @throws InputError with the faults of the file, or where it takes too much */
  async read<Kind extends FileKind>(kind: Kind, source: string): Promise<FileContents[Kind]> {
    const what = kind === 'act' ? 'request' : 'file';
    return (await this.#run({ read: kind, source }, `The ${what}`)) as FileContents[Kind];
  }

  /** The file of a bot. @throws InputError where it takes too much */
  async write(document: BotDocument, format: BotFileFormat): Promise<string> {
    return (await this.#run({ write: document, format }, 'The bot')) as string;
  }

  async #run(task: FileTask, what: string): Promise<unknown> {
    const done = await this.#threads.run(task, AbortSignal.timeout(MOST_TIME)).catch((error: unknown) => {
      const { name, code } = error as { name?: string; code?: string };
      if (name === 'AbortError' || name === 'TimeoutError') throw tooMuch(what, 'time');
      if (code === 'ERR_WORKER_OUT_OF_MEMORY') throw tooMuch(what, 'memory');
      throw error;
    });
    if (!done.ok) throw new InputError(done.message, done.faults, done.number);
    return done.is;
  }

  close(): Promise<void> {
    return this.#threads.destroy();
  }
}

const tooMuch = (what: string, of: string): InputError =>
  new InputError(`${what} takes too much ${of}. Divide it and do it in parts. Nothing was changed.`);
