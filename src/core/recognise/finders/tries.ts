/** Counts the tries of a search in one text, and ends it when there have been too many: no message may hold up others. */
export class Tries {
  #left: number;

  constructor(most: number) {
    this.#left = most;
  }

  /** Takes a try. @returns whether there was one left */
  take(): boolean {
    return this.#left-- > 0;
  }
}
