import type { RowId } from '$core/bot/document.js';
import { readMarking, writeMarking } from '$core/bot/marking.js';
import type { UtteranceLine } from '$core/contract/teach.js';
import type { Row } from './rows.svelte.js';

/** What an act that is on its way makes of the rows. */
type Change = (rows: Row[]) => Row[];

/** An id for a row that is made here, so that it is the same row when the server has it. */
export const newRowId = (): RowId =>
  Array.from(crypto.getRandomValues(new Uint8Array(9)), (byte) => byte.toString(36).padStart(2, '0')).join('');

/** A row as the server will have it: on one line, its marking in one form. */
function lineOf(id: RowId, written: string): UtteranceLine {
  const marked = readMarking(written.replace(/\s+/gu, ' ').trim());
  return { id, source: writeMarking(marked), ...marked, heldOut: null };
}

/** Shows acts before the server has answered them. */
export class OptimisticRows {
  #changes = $state.raw<readonly Change[]>([]);

  /** The rows as they will be. */
  apply(rows: Row[]): Row[] {
    return this.#changes.reduce((before, change) => change(before), rows);
  }

  /** Shows rows that are added, until the work is over: then they are there, or were refused. */
  adding<T>(sources: readonly string[], ids: readonly RowId[], work: () => Promise<T>): Promise<T> {
    const added = sources.map((source, index) => ({ id: ids[index]!, line: lineOf(ids[index]!, source) }));
    const known = new Set(ids);
    return this.#during((rows) => [...rows.filter(({ id }) => !known.has(id)), ...added], work);
  }

  changing<T>(id: RowId, source: string, work: () => Promise<T>): Promise<T> {
    const line = lineOf(id, source);
    return this.#during(
      (rows) => rows.map((row) => (row.id === id && row.line?.source !== line.source ? { id, line } : row)),
      work,
    );
  }

  removing<T>(ids: ReadonlySet<RowId>, work: () => Promise<T>): Promise<T> {
    return this.#during((rows) => rows.filter(({ id }) => !ids.has(id)), work);
  }

  async #during<T>(change: Change, work: () => Promise<T>): Promise<T> {
    this.#changes = [...this.#changes, change];
    try {
      return await work();
    } finally {
      this.#changes = this.#changes.filter((own) => own !== change);
    }
  }
}
