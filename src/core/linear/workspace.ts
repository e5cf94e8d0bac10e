import { KERNEL_BASE64 } from './kernel.js';

const PAGE_BYTES = 65536;
const FLOAT_BYTES = 4;
/** The kernel works on rows in fours and columns in eights. */
const ROW_BLOCK = 4;
const COLUMN_BLOCK = 8;

/** A matrix laid out for the kernel as its right-hand side, in panels of eight columns. */
export interface Panels {
  at: number;
  rows: number;
  columns: number;
}

/** Rows rounded up to what the kernel works on; left-hand sides and results need that much room. */
export function paddedRows(rows: number): number {
  return Math.ceil(rows / ROW_BLOCK) * ROW_BLOCK;
}

export function paddedColumns(columns: number): number {
  return Math.ceil(columns / COLUMN_BLOCK) * COLUMN_BLOCK;
}

type Multiply = (
  a: number,
  b: number,
  bias: number,
  c: number,
  m: number,
  k: number,
  n: number,
  rectify: number,
) => void;

let compiled: WebAssembly.Module | null = null;

function kernelModule(): WebAssembly.Module {
  compiled ??= new WebAssembly.Module(Uint8Array.from(atob(KERNEL_BASE64), (character) => character.charCodeAt(0)));
  return compiled;
}

/**
 * A stretch of WebAssembly memory in which single-precision matrices are laid out and multiplied with SIMD.
 * Offsets are in bytes. Nothing is ever freed; a workspace goes as a whole.
 */
export class Workspace {
  readonly #memory: WebAssembly.Memory;
  readonly #multiply: Multiply;
  #end = 0;

  /** @param floats how many numbers it must hold in all */
  constructor(floats: number) {
    this.#memory = new WebAssembly.Memory({ initial: Math.ceil((floats * FLOAT_BYTES) / PAGE_BYTES) + 1 });
    const instance = new WebAssembly.Instance(kernelModule(), { env: { memory: this.#memory } });
    this.#multiply = instance.exports['multiply'] as Multiply;
  }

  /** Sets numbers aside, zero at first. @returns the offset of the first */
  reserve(floats: number): number {
    const start = this.#end;
    this.#end = (start + floats * FLOAT_BYTES + 15) & ~15;
    return start;
  }

  /** The numbers at an offset; writing to the view writes to the workspace. */
  view(at: number, floats: number): Float32Array {
    return new Float32Array(this.#memory.buffer, at, floats);
  }

  /** Sets aside room for a right-hand side; columns are rounded up to eight. */
  reservePanels(rows: number, columns: number): Panels {
    const wide = paddedColumns(columns);
    return { at: this.reserve(rows * wide), rows, columns: wide };
  }

  /**
   * Lays a row-major matrix out in panels; rows and columns that the panels have beyond it become zero.
   * @param rows of the matrix, at most those of the panels
   * @param stride from one row to the next
   */
  fillPanels(panels: Panels, matrix: ArrayLike<number>, columns: number, rows = panels.rows, stride = columns): void {
    const target = this.view(panels.at, panels.rows * panels.columns);
    if (rows < panels.rows || columns < panels.columns) target.fill(0);
    for (let column = 0; column < columns; column++) {
      const from = (column - (column % COLUMN_BLOCK)) * panels.rows + (column % COLUMN_BLOCK);
      for (let row = 0; row < rows; row++) target[from + row * COLUMN_BLOCK] = matrix[row * stride + column]!;
    }
  }

  /** Lays the transpose of a row-major matrix out in panels: its rows become columns. @param stride from row to row */
  fillTransposedPanels(panels: Panels, matrix: ArrayLike<number>, rows: number, stride: number): void {
    const target = this.view(panels.at, panels.rows * panels.columns);
    if (rows < panels.columns) target.fill(0);
    for (let row = 0; row < rows; row++) {
      const from = (row - (row % COLUMN_BLOCK)) * panels.rows + (row % COLUMN_BLOCK);
      for (let at = 0; at < panels.rows; at++) target[from + at * COLUMN_BLOCK] = matrix[row * stride + at]!;
    }
  }

  /**
   * Multiplies and adds a bias to every row.
   * @param left rows × panels.rows, row-major, with room for {@link paddedRows}
   * @param bias panels.columns numbers
   * @param result rows × panels.columns, row-major, with room for {@link paddedRows}
   * @param rectify sets negative results to zero
   */
  multiply(left: number, rows: number, panels: Panels, bias: number, result: number, rectify = false): void {
    this.#multiply(left, panels.at, bias, result, paddedRows(rows), panels.rows, panels.columns, rectify ? 1 : 0);
  }
}
