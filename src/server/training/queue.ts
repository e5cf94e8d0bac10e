import trainWorker from '../../workers/train.worker.ts?nodeWorker';
import type { Delta } from '../../core/bot/delta.js';
import type { BotDocument } from '../../core/bot/document.js';
import type { HeldOutMeasure } from '../../core/measure/evaluate.js';
import { startThreads, type Threads } from '../threads/pool.js';
import type { Lesson, TrainAnswer, TrainTask } from './thread.js';

/** A bot as it is to be taught. */
export interface TrainingWish {
  botId: number;
  revision: number;
  document: BotDocument;
}

/** A model that was taught. */
export interface Taught {
  wish: TrainingWish;
  bytes: Uint8Array;
  heldOut: HeldOutMeasure;
  /** How long it took. */
  seconds: number;
}

/** What the queue asks of others, and what it tells them. */
export interface TrainingHost {
  /** Gives the sentence vectors that a training of a bot lacks. */
  vectorsOf(botId: number, texts: readonly string[]): Promise<ReadonlyMap<string, Float32Array>>;
  /** Takes a model up. */
  taught(taught: Taught): Promise<void>;
  /** Whether a screen shows the bot. */
  isWatched(botId: number): boolean;
  /** Is told of a training that failed; it is tried again after a while, or with the next change. */
  failed(wish: TrainingWish, error: unknown): void;
}

/** Bots of more utterances are taught in a thread of their own, so that small ones never wait for them. */
const LARGE = 1500;
/** Acts that follow each other this fast are taught together, in milliseconds. */
const GATHER = 60;
/** How long a bot counts as one on a screen after it was last seen there, in milliseconds. */
const SEEN = 20_000;
/** A training that has run for this share of what the last one took is not given up for a newer change. */
const NEARLY_DONE = 0.75;
/** The first wait after a fault, in milliseconds; each further fault doubles it. */
const FIRST_WAIT = 2000;
const LONGEST_WAIT = 300_000;

type LaneName = 'small' | 'large';

/** What is known of a bot that is to be taught. */
interface Pupil {
  wish: TrainingWish;
  /** What has changed since the revision that was last sent to a thread; `null` where it must be sent whole. */
  changes: { since: number; deltas: Delta[]; lane: LaneName } | null;
  waiting: boolean;
  /** When it may begin. */
  notBefore: number;
  faults: number;
  seen: number;
  /** How long the last training took, in milliseconds. */
  lasted: number | null;
}

interface Running {
  botId: number;
  began: number;
  stop: Int32Array;
}

class Lane {
  readonly threads: Threads<TrainTask, TrainAnswer> = startThreads(trainWorker);
  running: Running | null = null;
}

/** Teaches bots: each as it stands last, those on a screen first, small ones beside large ones. */
export class TrainingQueue {
  readonly #host: TrainingHost;
  readonly #pupils = new Map<number, Pupil>();
  readonly #lanes: Record<LaneName, Lane> = { small: new Lane(), large: new Lane() };
  #timer: ReturnType<typeof setTimeout> | null = null;
  #closing = false;

  constructor(host: TrainingHost) {
    this.#host = host;
  }

  /** A person looks at the bot. */
  see(botId: number): void {
    const pupil = this.#pupils.get(botId);
    if (pupil) pupil.seen = performance.now();
  }

  /**
   * Asks for a bot to be taught as it now stands; an older wish of it is forgotten.
   * @param delta what has changed since the last wish; `null` where that is not known
   */
  want(wish: TrainingWish, delta: Delta | null): void {
    const now = performance.now();
    const before = this.#pupils.get(wish.botId);
    const changes = before?.changes && delta ? before.changes : null;
    if (changes) changes.deltas.push(delta!);
    this.#pupils.set(wish.botId, {
      wish,
      changes,
      waiting: true,
      notBefore: now + GATHER,
      faults: 0,
      seen: before?.seen ?? now,
      lasted: before?.lasted ?? null,
    });
    for (const { running } of Object.values(this.#lanes)) {
      if (running?.botId !== wish.botId) continue;
      const ran = now - running.began;
      const lasted = before?.lasted ?? null;
      if (lasted === null || ran < lasted * NEARLY_DONE) Atomics.store(running.stop, 0, 1);
    }
    this.#schedule();
  }

  forget(botId: number): void {
    this.#pupils.delete(botId);
    for (const { running } of Object.values(this.#lanes)) {
      if (running?.botId === botId) Atomics.store(running.stop, 0, 1);
    }
  }

  async close(): Promise<void> {
    this.#closing = true;
    if (this.#timer) clearTimeout(this.#timer);
    await Promise.all(Object.values(this.#lanes).map(({ threads }) => threads.destroy()));
  }

  #schedule(): void {
    if (this.#timer) clearTimeout(this.#timer);
    this.#timer = null;
    if (this.#closing) return;
    for (const name of Object.keys(this.#lanes) as LaneName[]) this.#fill(name);
    // Those whose thread is busy are looked at when it is free.
    const next = [...this.#pupils.values()].filter(
      ({ waiting, wish }) => waiting && !this.#lanes[laneOf(wish)].running,
    );
    if (next.length === 0) return;
    const wait = Math.min(...next.map(({ notBefore }) => notBefore)) - performance.now();
    this.#timer = setTimeout(() => this.#schedule(), Math.max(1, wait));
  }

  #fill(name: LaneName): void {
    const lane = this.#lanes[name];
    if (lane.running) return;
    const now = performance.now();
    const onScreen = ({ seen, wish }: Pupil): number =>
      this.#host.isWatched(wish.botId) ? 0 : now - seen < SEEN ? 1 : 2;
    const [next] = [...this.#pupils.values()]
      .filter((pupil) => pupil.waiting && pupil.notBefore <= now && laneOf(pupil.wish) === name)
      .sort((a, b) => onScreen(a) - onScreen(b) || a.notBefore - b.notBefore);
    if (!next) return;
    next.waiting = false;
    const { wish } = next;
    const stop = new Int32Array(new SharedArrayBuffer(4));
    lane.running = { botId: wish.botId, began: now, stop };
    void this.#teach(name, next, stop).finally(() => {
      lane.running = null;
      this.#schedule();
    });
  }

  async #teach(name: LaneName, pupil: Pupil, stop: Int32Array): Promise<void> {
    const { wish } = pupil;
    const began = performance.now();
    try {
      const answer = await this.#answerOf(name, pupil, stop);
      if (answer.say !== 'done' || this.#closing) return;
      const lasted = performance.now() - began;
      const { bytes, heldOut } = answer;
      await this.#host.taught({ wish, bytes, heldOut, seconds: lasted / 1000 });
      const current = this.#pupils.get(wish.botId);
      if (current) Object.assign(current, { lasted, faults: 0 });
    } catch (error) {
      // A training that the end of the program cuts short is no fault.
      if (this.#closing) return;
      this.#host.failed(wish, error);
      const current = this.#pupils.get(wish.botId);
      if (!current || current.wish !== wish) return;
      const wait = Math.min(LONGEST_WAIT, FIRST_WAIT * 2 ** current.faults);
      Object.assign(current, {
        faults: current.faults + 1,
        waiting: true,
        notBefore: performance.now() + wait,
        changes: null,
      });
    }
  }

  /** Has the thread teach the bot; what it lacks is brought to it until it has all. */
  async #answerOf(name: LaneName, pupil: Pupil, stop: Int32Array): Promise<TrainAnswer> {
    const { wish } = pupil;
    const { botId, revision, document } = wish;
    const changes = pupil.changes?.lane === name ? pupil.changes : null;
    let lesson: Lesson = changes ? { since: changes.since, deltas: changes.deltas } : { document };
    // From here on the thread has this revision, and wishes after it bring what has changed since.
    pupil.changes = { since: revision, deltas: [], lane: name };
    let vectors: ReadonlyMap<string, Float32Array> = new Map();
    for (;;) {
      const answer = await this.#lanes[name].threads.run({ botId, revision, lesson, vectors, stop }, { name: 'train' });
      if (answer.say === 'unknown') lesson = { document };
      else if (answer.say === 'lacking') vectors = await this.#host.vectorsOf(botId, answer.texts);
      else return answer;
      if (Atomics.load(stop, 0) !== 0) return { say: 'given up' };
    }
  }
}

const laneOf = ({ document }: TrainingWish): LaneName =>
  document.intents.reduce((sum, { utterances }) => sum + utterances.length, 0) > LARGE ? 'large' : 'small';
