/** A short message at the edge of the screen. */
export interface Toast {
  id: number;
  kind: 'success' | 'error' | 'info';
  text: string;
  action?: { label: string; run: () => void };
}

/** How long a message stays, in milliseconds. Errors stay until they are closed. */
const STAY = 6000;

class Toasts {
  list = $state<Toast[]>([]);
  #next = 1;

  say(kind: Toast['kind'], text: string, action?: Toast['action']): void {
    const id = this.#next++;
    this.list = [...this.list.slice(-2), { id, kind, text, ...(action ? { action } : {}) }];
    if (kind !== 'error') setTimeout(() => this.close(id), STAY);
  }

  close(id: number): void {
    this.list = this.list.filter((toast) => toast.id !== id);
  }
}

export const toasts = new Toasts();
