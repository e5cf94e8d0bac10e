/** Does what concerns one thing in the order it was asked for; things wait only for themselves. */
export class Turns<Key> {
  readonly #last = new Map<Key, Promise<void>>();

  /** @returns what the work gives; a fault of it concerns only who asked */
  take<T>(key: Key, work: () => Promise<T>): Promise<T> {
    const next = (this.#last.get(key) ?? Promise.resolve()).then(work);
    const settled = next.then(
      () => undefined,
      () => undefined,
    );
    this.#last.set(key, settled);
    void settled.then(() => {
      if (this.#last.get(key) === settled) this.#last.delete(key);
    });
    return next;
  }
}
