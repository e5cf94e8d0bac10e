import { availableParallelism } from 'node:os';
import { LRUCache } from 'lru-cache';
import answerWorker from '../../workers/answer.worker.ts?nodeWorker';
import type { PersonSaid } from '../../core/contract/try.js';
import type { ConversationState, Step } from '../../core/converse/state.js';
import { NO_VECTORS, type Vectors } from '../../core/encode/encoder.js';
import type { Recognition } from '../../core/recognise/recognition.js';
import { TooLongError } from '../errors.js';
import { EncoderThreads } from '../encoder/threads.js';
import { startThreads, TimeLimitError, type Threads } from '../threads/pool.js';
import type { SharedModel, Task, TaskName, Tasks } from './tasks.js';

/** Who waits for an answer: a person, or work in bulk. */
export type Waiting = 'person' | 'bulk';

/** How long a task may take once a thread has taken it, in milliseconds. */
const LIMITS: Record<Waiting, number> = { person: 10_000, bulk: 120_000 };
/** Work whose length follows from what a bot is taught, and that a person stops when it is too long. */
const UNLIMITED: readonly TaskName[] = ['teach', 'textsToTeach'];
/** Work that meets its texts on the way. */
const ASKING: readonly TaskName[] = ['simulate', 'helpThrough'];
/** Messages whose texts to encode stay known: what is typed on, and what comes again, goes the shorter way. */
const MOST_KNOWN = 2000;

/** What a message is read as: a line of its own, or a turn of a conversation. */
type ReadAs = Tasks['textsOf']['given']['as'];

/**
 * Threads that answer people, and a thread for work in bulk, so that nobody waits behind a test run. They run no native
 * code, so that what takes too long can be ended; texts are encoded by threads of their own.
 */
export class Answering {
  readonly encoder = new EncoderThreads();
  readonly #threads: Record<Waiting, Threads<Task, unknown>> = {
    // One core is left to the thread that takes requests.
    person: startThreads(answerWorker, { most: Math.max(1, availableParallelism() - 1) }),
    bulk: startThreads(answerWorker),
  };
  readonly #texts = new LRUCache<string, string[]>({ max: MOST_KNOWN });

  /**
   * Has a thread do a task.
   * @param waiting whose threads do it
   * @throws TooLongError where a person waits for what takes too long
   */
  async run<Name extends TaskName>(
    waiting: Waiting,
    name: Name,
    given: Tasks[Name]['given'],
  ): Promise<Tasks[Name]['gives']> {
    const limit = UNLIMITED.includes(name) ? undefined : LIMITS[waiting];
    const vectorsOf = (texts: unknown) => this.encoder.encode(waiting, texts as string[]);
    const answers = ASKING.includes(name) ? vectorsOf : undefined;
    try {
      return (await this.#threads[waiting].run({ name, given } as Task, {
        name,
        limit,
        answers,
      })) as Tasks[Name]['gives'];
    } catch (error) {
      if (error instanceof TimeLimitError && waiting === 'person')
        throw new TooLongError(error.seconds, { cause: error });
      throw error;
    }
  }

  /** Reads one message for a person. @param now local ISO time that relative dates are reckoned from */
  async recognise(model: SharedModel, text: string, now: string): Promise<Recognition> {
    const vectors = await this.#vectorsOf(model, text, 'lines');
    return this.run('person', 'recognise', { model, text, now, vectors });
  }

  /** Takes a conversation of a person one turn further. */
  async converse(model: SharedModel, state: ConversationState, said: PersonSaid, now: string): Promise<Step> {
    const vectors = said.type === 'text' ? await this.#vectorsOf(model, said.text, 'turns') : NO_VECTORS;
    return this.run('person', 'converse', { model, state, said, now, vectors });
  }

  async #vectorsOf(model: SharedModel, text: string, as: ReadAs): Promise<Vectors> {
    const key = `${model.key}\n${as}\n${text}`;
    const texts = this.#texts.get(key) ?? (await this.run('person', 'textsOf', { model, messages: [text], as }));
    this.#texts.set(key, texts);
    return this.encoder.encode('person', texts);
  }

  async close(): Promise<void> {
    await Promise.all([...Object.values(this.#threads).map((threads) => threads.destroy()), this.encoder.close()]);
  }
}
