import { SvelteMap } from 'svelte/reactivity';

/** Rows of a long sheet, of which only those near the screen are held. */
export class Pages<Row> {
  total = $state(0);
  readonly size: number;
  readonly #pages = new SvelteMap<number, Row[]>();
  /** Pages that hold what was, until they are loaded anew. */
  readonly #old = new Set<number>();
  readonly #loading = new Set<number>();
  readonly #load: (from: number) => Promise<Row[]>;
  #generation = 0;

  /**
   * @param size rows of a page
   * @param load gives the page that begins at a row
   */
  constructor(size: number, load: (from: number) => Promise<Row[]>) {
    this.size = size;
    this.#load = load;
  }

  /** Takes up what the screen was loaded with: other pages are loaded anew when they are shown. */
  take(first: { from: number; rows: Row[] }, total: number): void {
    this.#generation++;
    this.#loading.clear();
    for (const page of this.#pages.keys()) this.#old.add(page);
    this.total = total;
    const page = Math.floor(first.from / this.size);
    this.#pages.set(page, first.rows);
    this.#old.delete(page);
  }

  row(index: number): Row | undefined {
    return this.#pages.get(Math.floor(index / this.size))?.[index % this.size];
  }

  /** Sees to it that the rows between two are held. */
  async show(first: number, last: number): Promise<void> {
    const from = Math.max(0, Math.floor(first / this.size));
    const to = Math.floor(Math.min(last, this.total - 1) / this.size);
    for (let page = from; page <= to; page++) {
      if ((this.#pages.has(page) && !this.#old.has(page)) || this.#loading.has(page)) continue;
      const generation = this.#generation;
      this.#loading.add(page);
      // A page that could not be loaded is asked for again when it is next shown.
      const rows = await this.#load(page * this.size).finally(() => {
        if (generation === this.#generation) this.#loading.delete(page);
      });
      if (generation !== this.#generation) return;
      this.#old.delete(page);
      this.#pages.set(page, rows);
    }
  }
}
