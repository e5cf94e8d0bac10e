import filesWorker from '../../workers/files.worker.ts?nodeWorker';
import { count } from '../../core/bot/acts/common.js';
import { InputError } from '../errors.js';
import { startThreads, type Threads } from '../threads/pool.js';
import type { FileContents, FileKind, FileRead } from './read.js';

/** Memory that reading a file may take, in MB. */
const MOST_MEMORY = 768;
/** How long it may take, in milliseconds. */
const MOST_TIME = 60_000;

interface ReadTask {
  kind: FileKind;
  source: string;
}

/** Reads files in a thread of its own, which may take so much memory and time and no more. */
export class FileReader {
  readonly #threads: Threads<ReadTask, FileRead<FileKind>> = startThreads(filesWorker, { memory: MOST_MEMORY });

  /** @throws InputError with the faults of the file, or where it takes too much */
  async read<Kind extends FileKind>(kind: Kind, source: string): Promise<FileContents[Kind]> {
    let read: FileRead<FileKind>;
    try {
      read = await this.#threads.run({ kind, source }, AbortSignal.timeout(MOST_TIME));
    } catch (error) {
      const { name, code } = error as { name?: string; code?: string };
      if (name === 'AbortError' || name === 'TimeoutError') throw tooMuch('time');
      if (code === 'ERR_WORKER_OUT_OF_MEMORY') throw tooMuch('memory');
      throw error;
    }
    if (read.ok) return read.contents as FileContents[Kind];
    const message = `The file was not brought in: it has ${count(read.number, 'fault')}. Nothing was changed.`;
    throw new InputError(message, read.faults, read.number);
  }

  close(): Promise<void> {
    return this.#threads.destroy();
  }
}

const tooMuch = (what: string): InputError =>
  new InputError(`The file takes too much ${what} to be read. Divide it and bring in the parts. Nothing was changed.`);
