import { mkdtempSync, writeFileSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { MessageChannel, type MessagePort } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { ownFolderName, sweepFolders } from './folders.js';

/** What a task is done under. */
export interface Terms {
  /** Names the task in what is told of it. */
  name: string;
  /** How long it may take from when a thread has taken it, in milliseconds; without one it takes what it takes. */
  limit?: number | undefined;
  /** Answers what the thread asks for in the middle of the task; its task is then given a `port` beside. */
  answers?: ((question: unknown) => Promise<unknown>) | undefined;
}

/** Threads that do tasks in the order in which they were asked for. */
export interface Threads<Task, Result> {
  /** @throws TaskError of a task that failed; TimeLimitError of one that took longer than it may */
  run(task: Task, terms: Terms): Promise<Result>;
  destroy(): Promise<void>;
}

/** A task that failed in its thread: which, and what it threw there. */
export class TaskError extends Error {
  constructor(
    readonly task: string,
    cause: unknown,
  ) {
    // What cannot be sent from thread to thread comes as an object that says nothing.
    const what = cause instanceof Error ? cause.message : 'what came of it cannot be sent to another thread';
    super(`the task “${task}” failed: ${what}`, { cause });
  }
}

/** A task that took longer than it may, and was ended. */
export class TimeLimitError extends Error {
  constructor(
    readonly task: string,
    readonly seconds: number,
  ) {
    super(`the task “${task}” took longer than ${seconds} seconds`);
  }
}

/** How long a thread may take over the end of its task, in milliseconds. */
const LONGEST_END = 3000;

/** Has somebody answer what a thread asks over a port. @returns the thread's end of it */
function answering(answers: NonNullable<Terms['answers']>): { port: MessagePort; close: () => void } {
  const { port1, port2 } = new MessageChannel();
  port1.on('message', ({ number, question }: { number: number; question: unknown }) => {
    answers(question).then(
      (answer) => port1.postMessage({ number, answer }),
      (error: unknown) => port1.postMessage({ number, fault: error instanceof Error ? error.message : String(error) }),
    );
  });
  return { port: port2, close: () => port1.close() };
}

const endOfProgram = (): Error => new Error('the program ends');

/** A task that no thread has taken yet. */
interface Waiting<Task, Result> {
  task: Task;
  terms: Terms;
  give: (result: Result) => void;
  fail: (error: Error) => void;
}

interface Options {
  /** Threads that there are at once. */
  most?: number;
  /** What each may take, in MB. */
  memory?: number;
  /**
   * Whether they run native code, which ends the whole program where its thread is taken away in the middle: tasks that
   * run are waited for, and must not have a time limit.
   */
  native?: boolean;
}

class Pool<Task, Result> implements Threads<Task, Result> {
  readonly #most: number;
  readonly #native: boolean;
  readonly #folder: string;
  readonly #pool: Piscina<unknown, Result>;
  /** Tasks wait here, not in the library, so that the time of each counts from when a thread takes it. */
  readonly #waiting: Waiting<Task, Result>[] = [];
  readonly #running = new Set<Promise<void>>();
  #stopping = false;

  constructor(source: string, { most = 1, memory, native = false }: Options) {
    this.#most = most;
    this.#native = native;
    this.#folder = mkdtempSync(path.join(tmpdir(), ownFolderName()));
    const filename = path.join(this.#folder, 'worker.mjs');
    writeFileSync(filename, source, { mode: 0o600 });
    this.#pool = new Piscina<unknown, Result>({
      filename,
      // A thread starts with its first task.
      minThreads: 0,
      maxThreads: most,
      idleTimeout: Infinity,
      concurrentTasksPerWorker: 1,
      ...(memory === undefined ? {} : { resourceLimits: { maxOldGenerationSizeMb: memory } }),
    });
    this.#pool.on('error', (error: Error) => {
      // One that took too much is told of by its task; one that is stopped while it starts no longer finds its file.
      if (!this.#stopping && memory === undefined) throw error;
    });
  }

  run(task: Task, terms: Terms): Promise<Result> {
    return new Promise<Result>((give, fail) => {
      if (this.#stopping) return fail(new TaskError(terms.name, endOfProgram()));
      this.#waiting.push({ task, terms, give, fail });
      this.#fill();
    });
  }

  #fill(): void {
    while (this.#running.size < this.#most && this.#waiting.length > 0) {
      const next = this.#waiting.shift()!;
      const running = this.#perform(next)
        .then(next.give, next.fail)
        .finally(() => {
          this.#running.delete(running);
          this.#fill();
        });
      this.#running.add(running);
    }
  }

  async #perform({ task, terms: { name, limit, answers } }: Waiting<Task, Result>): Promise<Result> {
    const stop = limit === undefined ? null : new AbortController();
    const timer = stop && setTimeout(() => stop.abort(), limit);
    const asked = answers && answering(answers);
    try {
      return await this.#pool.run(asked ? { ...(task as object), port: asked.port } : task, {
        ...(stop ? { signal: stop.signal } : {}),
        ...(asked ? { transferList: [asked.port] } : {}),
      });
    } catch (error) {
      if (stop?.signal.aborted) throw new TimeLimitError(name, limit! / 1000);
      throw new TaskError(name, error);
    } finally {
      if (timer) clearTimeout(timer);
      asked?.close();
    }
  }

  async destroy(): Promise<void> {
    this.#stopping = true;
    for (const { terms, fail } of this.#waiting.splice(0)) fail(new TaskError(terms.name, endOfProgram()));
    if (this.#native) {
      const late = new Promise((resolve) => setTimeout(resolve, LONGEST_END).unref());
      await Promise.race([Promise.all(this.#running), late]);
    }
    await this.#pool.destroy();
    await rm(this.#folder, { recursive: true, force: true });
  }
}

/** Starts threads from the source of a self-contained module whose default export does a task. */
export function startThreads<Task, Result>(source: string, options: Options = {}): Threads<Task, Result> {
  sweepFolders();
  return new Pool(source, options);
}
