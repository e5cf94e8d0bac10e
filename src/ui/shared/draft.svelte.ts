/**
 * What is being typed in a field that is kept when it is left or with Enter; Escape brings back what was kept. It belongs
 * to the person: a refresh of the screen leaves it alone, and a text that was refused stays to be mended.
 */
export class Draft {
  /** `null` where nothing is being typed. */
  text = $state<string | null>(null);
  /** Why the text was refused; empty where that is told elsewhere. */
  refused = $state<string | null>(null);
  readonly #kept: () => string;
  readonly #keep: (text: string) => unknown;

  /**
   * @param kept what is kept now
   * @param keep gives `false` or a sentence that says why, or a promise of it, if the text is refused
   */
  constructor(kept: () => string, keep: (text: string) => unknown) {
    this.#kept = kept;
    this.#keep = keep;
  }

  get shown(): string {
    return this.text ?? this.#kept();
  }

  type(text: string): void {
    this.text = text;
    this.refused = null;
  }

  drop(): void {
    this.text = null;
    this.refused = null;
  }

  async commit(): Promise<void> {
    const { text } = this;
    if (text === null) return;
    const result = text === this.#kept() || (await this.#keep(text));
    // More may have been typed while this was being kept.
    if (this.text !== text) return;
    this.refused = result === false ? '' : typeof result === 'string' ? result : null;
    if (this.refused === null) this.text = null;
  }

  /** The field was left: what is not kept is sent, once more where it was refused before. */
  left(): void {
    void this.commit();
  }

  /** @param lines whether Enter begins another line */
  press(event: KeyboardEvent, { lines }: { lines: boolean }): void {
    if (event.key === 'Enter' && !lines) {
      event.preventDefault();
      void this.commit();
    } else if (event.key === 'Escape' && this.text !== null) {
      event.preventDefault();
      this.drop();
    }
  }
}
