import type { RowId } from '$core/bot/document.js';

/** A row of a sheet, with its line where that is held here. */
export interface Row<Line> {
  id: RowId;
  line: Line | undefined;
}

/** What a page load tells of a sheet. */
export interface SheetPart<Line> {
  /** Of what the rows are. */
  name: string;
  /** The ids of all rows in their order, a blank between. */
  ids: string;
  /** One page of them. */
  page: readonly Line[];
}

/** The rows of a long sheet: the ids of all, and the lines of those that were on the screen. */
export class SheetRows<Line extends { id: RowId }> {
  #name = '';
  #ids = $state.raw<readonly RowId[]>([]);
  #lines = $state.raw<ReadonlyMap<RowId, Line>>(new Map());
  /** Lines as they were before the last load, until they are loaded anew. */
  #old = new Set<RowId>();
  #loading = new Map<number, Promise<void>>();
  readonly #size: number;
  readonly #load: (name: string, from: number) => Promise<Line[]>;

  readonly rows: Row<Line>[] = $derived(this.#ids.map((id) => ({ id, line: this.#lines.get(id) })));
  readonly #places: ReadonlyMap<RowId, number> = $derived(new Map(this.#ids.map((id, index) => [id, index])));

  /**
   * @param size rows of a page
   * @param load gives the page of a sheet that begins at a row
   */
  constructor(size: number, load: (name: string, from: number) => Promise<Line[]>) {
    this.#size = size;
    this.#load = load;
  }

  /** Takes up what a page load told. */
  take({ name, ids: all, page }: SheetPart<Line>): void {
    const ids = all === '' ? [] : all.split(' ');
    const same = name === this.#name;
    this.#name = name;
    this.#loading = new Map();
    const known = new Set(ids);
    const lines = new Map([...(same ? this.#lines : [])].filter(([id]) => known.has(id)));
    this.#old = new Set(lines.keys());
    for (const line of page) {
      lines.set(line.id, line);
      this.#old.delete(line.id);
    }
    this.#ids = ids;
    this.#lines = lines;
  }

  /** Sees to it that the lines of rows are held as they stand. */
  async show(ids: readonly RowId[]): Promise<void> {
    const pages = new Set<number>();
    for (const id of ids) {
      const place = this.#places.get(id);
      if (place !== undefined && (!this.#lines.has(id) || this.#old.has(id))) pages.add(Math.floor(place / this.#size));
    }
    await Promise.all([...pages].map((page) => this.#page(page)));
  }

  #page(page: number): Promise<void> {
    const loading = this.#loading;
    const known = loading.get(page);
    if (known) return known;
    const work = this.#load(this.#name, page * this.#size)
      .then((lines) => {
        // Another load of the screen has come meanwhile.
        if (this.#loading !== loading) return;
        this.#lines = new Map([...this.#lines, ...lines.map((line) => [line.id, line] as const)]);
        for (const { id } of lines) this.#old.delete(id);
      })
      // A page that could not be loaded is asked for again when it is next shown.
      .finally(() => loading.delete(page));
    loading.set(page, work);
    return work;
  }

  /** The lines of rows, which are loaded where they are not held. */
  async lines(ids: readonly RowId[]): Promise<Line[]> {
    await this.show(ids);
    return ids.flatMap((id) => this.#lines.get(id) ?? []);
  }
}
