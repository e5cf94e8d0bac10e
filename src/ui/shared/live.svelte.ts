import { invalidate } from '$app/navigation';
import { navigating } from '$app/state';
import type { BotFrame, ModelState, StageFigures } from '$core/contract/bot.js';
import type { BotEvent } from '$core/contract/events.js';
import type { JobView } from '$core/contract/job.js';
import { WINDOW } from './api.js';
import { FRAME, MODEL_VIEW, VIEW, WALKED } from './loads.js';

/** How long a message about somebody else's act stays, in milliseconds. */
const STAY = 6000;
/** How long a stream may be gone before the screen says so, in milliseconds. */
const PATIENCE = 2500;

/** Follows the bot on the screen as things happen to it. */
class Live {
  model = $state<ModelState | null>(null);
  figures = $state<Pick<StageFigures, 'teach' | 'try'> | null>(null);
  jobs = $state<JobView[]>([]);
  /** What somebody else has just done. */
  others = $state<string | null>(null);
  /** Whether the server cannot be heard, so that what is shown may be old. */
  lost = $state(false);
  #botId: number | null = null;
  /** How much had been done to the bot when the screen was loaded. */
  #acts = 0;
  #stream: EventSource | null = null;
  #losing: ReturnType<typeof setTimeout> | undefined;
  #forgetting: ReturnType<typeof setTimeout> | undefined;

  /** Takes up what a page load told, and listens from there. */
  show({ bot, acts, model, figures, jobs }: BotFrame): void {
    this.#acts = acts;
    this.model = model;
    this.figures = figures;
    this.jobs = jobs;
    if (this.#botId === bot.id) return;
    this.leave();
    this.#botId = bot.id;
    document.addEventListener('visibilitychange', this.#seen);
    this.#seen();
  }

  leave(): void {
    this.#botId = null;
    document.removeEventListener('visibilitychange', this.#seen);
    this.#close();
    clearTimeout(this.#forgetting);
    this.others = null;
  }

  /** An act was sent, so the model falls behind. */
  expectChange(): void {
    if (this.model?.state === 'current') this.model = { ...this.model, state: 'catching up', settled: false };
  }

  /** A browser keeps few streams open: a window that nobody sees gives its own up, and catches up when it is seen. */
  readonly #seen = (): void => {
    if (document.visibilityState === 'hidden') this.#close();
    else if (!this.#stream) this.#open();
  };

  #open(): void {
    if (this.#botId === null) return;
    const stream = new EventSource(`/api/bots/${this.#botId}/events?window=${WINDOW}`);
    this.#stream = stream;
    stream.onopen = () => this.#heard();
    stream.onmessage = (message) => this.#take(JSON.parse(message.data as string) as BotEvent);
    stream.onerror = () => {
      this.#losing ??= setTimeout(() => (this.lost = true), PATIENCE);
      // A browser gives up where the answer was an error; the server may be back in a moment.
      if (stream.readyState !== EventSource.CLOSED || this.#stream !== stream) return;
      setTimeout(() => {
        if (this.#stream === stream) this.#open();
      }, PATIENCE);
    };
  }

  #close(): void {
    this.#stream?.close();
    this.#stream = null;
    this.#heard();
  }

  #heard(): void {
    clearTimeout(this.#losing);
    this.#losing = undefined;
    this.lost = false;
  }

  #take(event: BotEvent): void {
    switch (event.type) {
      case 'hello':
        this.#heard();
        this.jobs = event.jobs;
        // Something was done while nobody listened: the server may have been started anew since.
        if (event.acts !== this.#acts) void refresh();
        else if (event.model.revision !== this.model?.revision) void load(MODEL_VIEW);
        this.model = event.model;
        break;
      case 'act':
        if (event.acts === this.#acts) break;
        this.#acts = event.acts;
        if (event.by === 'somebody else') this.#tellOf(event.label);
        // What was done here is loaded by whoever did it.
        if (event.by !== 'this window') void refreshSoon();
        break;
      case 'model': {
        const changed = event.model.revision !== this.model?.revision;
        const settled = event.model.settled && !this.model?.settled;
        this.model = event.model;
        this.figures = event.figures;
        if (changed) void load(MODEL_VIEW);
        if (settled) void load(WALKED);
        break;
      }
      case 'job':
        this.jobs = [...this.jobs.filter(({ id }) => id !== event.job.id), event.job];
        break;
    }
  }

  #tellOf(label: string): void {
    this.others = label;
    clearTimeout(this.#forgetting);
    this.#forgetting = setTimeout(() => (this.others = null), STAY);
  }
}

export const live = new Live();

async function load(...names: string[]): Promise<void> {
  // A person on the way to another screen gets there first.
  if (navigating.complete) await navigating.complete.catch(() => undefined);
  await Promise.all(names.map((name) => invalidate(name)));
}

let waiting: Promise<void> | null = null;

/** Loads what the screen shows of the bot anew. */
export const refresh = (): Promise<void> => load(FRAME, VIEW, MODEL_VIEW);

/** The same for acts that follow each other fast: one load for all of them. */
function refreshSoon(): Promise<void> {
  waiting ??= new Promise<void>((resolve) => setTimeout(resolve, 30)).then(() => {
    waiting = null;
    return refresh();
  });
  return waiting;
}
