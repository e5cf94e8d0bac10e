/** A short message in the top bar. */
export interface Notice {
  id: number;
  kind: 'success' | 'error' | 'info';
  text: string;
  action?: { label: string; run: () => void };
}

/** How long a message stays, in milliseconds: long enough to be read twice. */
const STAY = { success: 6000, info: 6000, error: 15_000 };

/** The message that is shown: the last one. */
class Notices {
  shown = $state<Notice | null>(null);
  #next = 1;
  #leaving: ReturnType<typeof setTimeout> | undefined;

  say(kind: Notice['kind'], text: string, action?: Notice['action']): void {
    clearTimeout(this.#leaving);
    const id = this.#next++;
    this.shown = { id, kind, text, ...(action ? { action } : {}) };
    this.#leaving = setTimeout(() => this.close(id), STAY[kind]);
  }

  close(id: number): void {
    if (this.shown?.id === id) this.shown = null;
  }
}

export const notices = new Notices();
