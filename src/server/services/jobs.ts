import type { Kysely } from 'kysely';
import { LRUCache } from 'lru-cache';
import type { JobKind, JobView } from '../../core/contract/job.js';
import type { Database } from '../database/schema.js';
import type { EventHub } from '../events.js';
import { beginJob, endJob, endUnfinishedJobs, readJob } from '../repositories/jobs.js';

/** Work that a person stopped. */
export class StoppedError extends Error {
  constructor() {
    super('The work was stopped.');
  }
}

/** What long work tells of itself. */
export interface RunningJob {
  /** @throws StoppedError where a person has stopped it */
  check(): void;
  /** Tells how much is done; checks too. */
  progress(done: number): void;
  /** Has screens told a sentence about what came of it. */
  tell(sentence: string): void;
}

/** Long work that was begun. */
export interface StartedJob {
  view: JobView;
  /** Comes when it is over. @throws StoppedError, and what the work throws */
  finished: Promise<void>;
}

/** What is to be known of work before it begins. */
export interface JobPlan {
  kind: JobKind;
  total: number;
  /** What it works on. */
  subject?: number;
}

/** What jobs take. */
export interface JobParts {
  database: Kysely<Database>;
  events: EventHub;
  /** Is told of work that failed. */
  report: (error: unknown, botId: number) => void;
}

/** How often screens are told how far work is, in milliseconds. */
const OFTEN = 200;

/** Jobs that are over and still told of. */
const MOST_REMEMBERED = 500;

const now = (): string => new Date().toISOString();

/** Long work of every kind: how far it is, stopping it, what came of it. It stands in a table, so that a restart knows of it. */
export class JobService {
  readonly #parts: JobParts;
  readonly #jobs = new LRUCache<number, { view: JobView; began: number; stopped: boolean }>({ max: MOST_REMEMBERED });
  #closing = false;

  constructor(parts: JobParts) {
    this.#parts = parts;
  }

  /** Says of work that ran when the program ended last that it was cut short. @returns how many */
  open(): Promise<number> {
    return endUnfinishedJobs(this.#parts.database, now());
  }

  /**
   * Begins work.
   * @param work gives the number of what came of it, if that has one
   */
  async start(botId: number, plan: JobPlan, work: (job: RunningJob) => Promise<number | null>): Promise<StartedJob> {
    const startedAt = now();
    const id = await beginJob(this.#parts.database, { botId, ...plan, startedAt });
    const view: JobView = {
      id,
      botId,
      kind: plan.kind,
      subject: plan.subject ?? null,
      state: 'running',
      done: 0,
      total: plan.total,
      secondsLeft: null,
      message: null,
      result: null,
      startedAt,
    };
    const entry = { view, began: performance.now(), stopped: false };
    this.#jobs.set(id, entry);
    this.#tell(view);
    let told = entry.began;
    const check = () => {
      if (entry.stopped) throw new StoppedError();
    };
    const progress = (done: number) => {
      check();
      view.done = done;
      const elapsed = (performance.now() - entry.began) / 1000;
      view.secondsLeft = done === 0 ? null : (elapsed / done) * (view.total - done);
      if (performance.now() - told < OFTEN) return;
      told = performance.now();
      this.#tell(view);
    };
    const tell = (sentence: string) => {
      view.message = sentence;
    };
    const finished = this.#finish(view, work({ check, progress, tell }));
    finished.catch(() => undefined);
    return { view, finished };
  }

  async #finish(view: JobView, work: Promise<number | null>): Promise<void> {
    try {
      view.result = await work;
      view.done = view.total;
      view.state = 'done';
    } catch (error) {
      view.state = error instanceof StoppedError ? 'stopped' : 'failed';
      if (view.state === 'failed') {
        view.message = 'It failed, and what it worked on is as it was. Try again.';
        if (!this.#closing) this.#parts.report(error, view.botId);
      }
      throw error;
    } finally {
      view.secondsLeft = null;
      // What the end of the program cuts short is told by the next start.
      if (!this.#closing) await endJob(this.#parts.database, view, now());
      this.#tell(view);
    }
  }

  #tell(view: JobView): void {
    const job = { ...view };
    this.#parts.events.publish(view.botId, () => ({ type: 'job', job }));
  }

  /** The work that goes on for a bot. */
  of(botId: number): JobView[] {
    return [...this.#jobs.values()]
      .map(({ view }) => view)
      .filter((view) => view.botId === botId && view.state === 'running')
      .map((view) => ({ ...view }));
  }

  /** How far work is; `null` where the bot has no such job. */
  async get(botId: number, id: number): Promise<JobView | null> {
    const known = this.#jobs.get(id)?.view ?? (await readJob(this.#parts.database, id));
    return known?.botId === botId ? known : null;
  }

  /** The work of a kind that goes on for a bot. @param subject what it works on */
  running(botId: number, kind: JobKind, subject?: number): JobView | null {
    const same = (view: JobView) => view.kind === kind && (subject === undefined || view.subject === subject);
    return this.of(botId).find(same) ?? null;
  }

  /** Stops work. @returns whether there is such work going on */
  stop(botId: number, id: number): boolean {
    const entry = this.#jobs.get(id);
    if (entry?.view.botId !== botId || entry.view.state !== 'running') return false;
    entry.stopped = true;
    return true;
  }

  close(): void {
    this.#closing = true;
    for (const entry of this.#jobs.values()) entry.stopped = true;
  }
}
