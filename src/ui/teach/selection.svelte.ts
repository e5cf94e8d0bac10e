import type { RowId } from '$core/bot/document.js';

/** Words of a row that were selected to be marked. Offsets are in the row's plain text. */
export interface WordRange {
  row: RowId;
  start: number;
  end: number;
}

/** What is selected in a sheet of utterances. Rows are named by their ids, so that it stays with them whatever comes. */
export class SheetSelection {
  /** The row that keys act on; the first where there is none of that id. */
  row = $state<RowId | null>(null);
  /** Rows chosen for moving or deleting. */
  rows = $state<ReadonlySet<RowId>>(new Set());
  words = $state<WordRange | null>(null);

  clear(): void {
    this.row = null;
    this.rows = new Set();
    this.words = null;
  }

  toggle(row: RowId): void {
    const rows = new Set(this.rows);
    if (!rows.delete(row)) rows.add(row);
    this.rows = rows;
  }

  /** Selects more rows. */
  add(more: readonly RowId[]): void {
    this.rows = new Set([...this.rows, ...more]);
  }
}
