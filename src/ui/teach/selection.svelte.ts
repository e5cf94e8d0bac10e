/** Words of a row that were selected to be marked. Offsets are in the row's plain text. */
export interface WordRange {
  row: number;
  start: number;
  end: number;
}

/** What is selected in a sheet of utterances. */
export class SheetSelection {
  /** The row that keys act on. */
  row = $state(0);
  /** Rows chosen for moving or deleting. */
  rows = $state<ReadonlySet<number>>(new Set());
  words = $state<WordRange | null>(null);

  clear(): void {
    this.row = 0;
    this.rows = new Set();
    this.words = null;
  }

  toggle(row: number): void {
    const rows = new Set(this.rows);
    if (!rows.delete(row)) rows.add(row);
    this.rows = rows;
  }

  /** Selects all rows between two. */
  span(from: number, to: number): void {
    const rows = new Set(this.rows);
    for (let row = Math.min(from, to); row <= Math.max(from, to); row++) rows.add(row);
    this.rows = rows;
  }
}
