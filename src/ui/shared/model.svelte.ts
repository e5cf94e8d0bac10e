import type { ModelState } from '$core/contract/bot.js';
import { send } from './api.js';
import { refresh } from './refresh.js';

/** How often the model's state is asked for while it catches up, in milliseconds. */
const OFTEN = 250;

/** Follows the model of the bot on the screen. */
class ModelWatch {
  state = $state<ModelState | null>(null);
  #botId: number | null = null;
  #timer: ReturnType<typeof setTimeout> | null = null;

  /** Takes up what a page load told. */
  show(botId: number, state: ModelState): void {
    this.#botId = botId;
    this.state = state;
    if (!state.settled && state.fault === null) this.#askLater();
  }

  /** An act was done, so the model falls behind. */
  expectChange(): void {
    if (this.state?.state === 'current') this.state = { ...this.state, state: 'catching up', settled: false };
  }

  leave(): void {
    this.#botId = null;
    if (this.#timer) clearTimeout(this.#timer);
    this.#timer = null;
  }

  #askLater(): void {
    this.#timer ??= setTimeout(() => {
      this.#timer = null;
      void this.#ask();
    }, OFTEN);
  }

  async #ask(): Promise<void> {
    const botId = this.#botId;
    if (botId === null) return;
    const state = await send<ModelState>('GET', `/api/bots/${botId}/model`).catch(() => null);
    if (botId !== this.#botId) return;
    if (state === null) return this.#askLater();
    const changed = state.revision !== this.state?.revision || state.settled !== this.state.settled;
    this.state = state;
    if (changed) await refresh();
    else if (!state.settled && state.fault === null) this.#askLater();
  }
}

export const modelWatch = new ModelWatch();
