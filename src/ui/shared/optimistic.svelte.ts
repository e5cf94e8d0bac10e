import type { RowId } from '$core/bot/document.js';

/** An id for a row that is made here, so that it is the same row when the server has it. */
export const newRowId = (): RowId =>
  Array.from(crypto.getRandomValues(new Uint8Array(9)), (byte) => byte.toString(36).padStart(2, '0')).join('');

/** Shows what acts make of rows before the server has answered them. */
export class OptimisticRows<Row extends { id: RowId }> {
  /** What acts that are on their way make of the rows. */
  #changes = $state.raw<readonly ((rows: Row[]) => Row[])[]>([]);

  /** The rows as they will be. */
  apply(rows: Row[]): Row[] {
    return this.#changes.reduce((before, change) => change(before), rows);
  }

  /** Shows rows that are added, until the work is over: then they are there, or were refused. */
  adding<T>(added: readonly Row[], work: () => Promise<T>): Promise<T> {
    const known = new Set(added.map(({ id }) => id));
    return this.during((rows) => [...rows.filter(({ id }) => !known.has(id)), ...added], work);
  }

  changing<T>(id: RowId, change: (row: Row) => Row, work: () => Promise<T>): Promise<T> {
    return this.during((rows) => rows.map((row) => (row.id === id ? change(row) : row)), work);
  }

  removing<T>(ids: ReadonlySet<RowId>, work: () => Promise<T>): Promise<T> {
    return this.during((rows) => rows.filter(({ id }) => !ids.has(id)), work);
  }

  /** Shows a change of the rows until the work is over. */
  async during<T>(change: (rows: Row[]) => Row[], work: () => Promise<T>): Promise<T> {
    this.#changes = [...this.#changes, change];
    try {
      return await work();
    } finally {
      this.#changes = this.#changes.filter((own) => own !== change);
    }
  }
}
