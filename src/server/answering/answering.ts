import { availableParallelism } from 'node:os';
import answerWorker from '../../workers/answer.worker.ts?nodeWorker';
import { encoderFolder } from '../encoder/files.js';
import { startThreads, type Threads } from '../threads/pool.js';
import type { Task, TaskName, Tasks } from './tasks.js';

/** Who waits for an answer: a person, or work in bulk. */
export type Waiting = 'person' | 'bulk';

/** Threads that answer people, and a thread for work in bulk, so that nobody waits behind a test run. */
export class Answering {
  readonly #encoder = encoderFolder();
  readonly #threads: Record<Waiting, Threads<Task, unknown>> = {
    // One core is left to the thread that takes requests.
    person: startThreads(answerWorker, { most: Math.max(1, availableParallelism() - 1), native: true }),
    bulk: startThreads(answerWorker, { native: true }),
  };

  /** Has a thread do a task. @param waiting whose threads do it */
  run<Name extends TaskName>(waiting: Waiting, name: Name, given: Tasks[Name]['given']): Promise<Tasks[Name]['gives']> {
    const task = { name, given, encoder: this.#encoder } as Task;
    return this.#threads[waiting].run(task) as Promise<Tasks[Name]['gives']>;
  }

  async close(): Promise<void> {
    await Promise.all(Object.values(this.#threads).map((threads) => threads.destroy()));
  }
}
