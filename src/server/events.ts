import type { BotEvent } from '../core/contract/events.js';

/** A screen that listens. */
export interface Listener {
  person: string;
  window: string | null;
}

/** Makes an event for each listener, since it may say who did something. */
type ForEach = (listener: Listener) => BotEvent;
type Tell = (event: ForEach) => void;

/** Tells screens what happens to a bot as it happens. */
export class EventHub {
  readonly #listeners = new Map<number, Set<Tell>>();
  readonly #closers = new Set<() => void>();
  readonly #acts = new Map<number, number>();

  publish(botId: number, event: ForEach): void {
    for (const tell of this.#listeners.get(botId) ?? []) tell(event);
  }

  /** Counts what is done to a bot and what belongs to it, so that a screen knows whether it missed something. */
  countAct(botId: number): number {
    const acts = this.actsOf(botId) + 1;
    this.#acts.set(botId, acts);
    return acts;
  }

  actsOf(botId: number): number {
    return this.#acts.get(botId) ?? 0;
  }

  /** Whether a screen shows the bot. */
  isWatched(botId: number): boolean {
    return (this.#listeners.get(botId)?.size ?? 0) > 0;
  }

  /**
   * Listens until the function that comes back is called.
   * @param close is called when the hub is closed
   */
  listen(botId: number, listener: Listener, tell: (event: BotEvent) => void, close: () => void): () => void {
    const own: Tell = (event) => tell(event(listener));
    const listeners = this.#listeners.get(botId) ?? new Set();
    this.#listeners.set(botId, listeners.add(own));
    this.#closers.add(close);
    return () => {
      this.#closers.delete(close);
      listeners.delete(own);
      if (listeners.size === 0) this.#listeners.delete(botId);
    };
  }

  /** Ends all streams, so that the server need not wait for them. */
  close(): void {
    for (const close of [...this.#closers]) close();
  }
}
