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

/** What kernel.wat exports; its comments tell what the numbers mean. */
interface Kernel {
  multiply(a: number, b: number, bias: number, c: number, m: number, k: number, n: number, rectify: number): void;
  dot(a: number, b: number, count: number): number;
  products(rows: number, vector: number, into: number, n: number, width: number): void;
  spread(into: number, places: number, weights: number, scale: number, count: number): void;
  combine(into: number, a: number, scale: number, b: number, count: number): void;
  softmax(scores: number, offsets: number, into: number, m: number, panels: number, stride: number): void;
  weigh(into: number, weights: number, scale: number, b: number, m: number, panels: number): void;
}

let compiled: WebAssembly.Module | null = null;

function kernelModule(): WebAssembly.Module {
  compiled ??= new WebAssembly.Module(Uint8Array.from(atob(KERNEL_BASE64), (character) => character.charCodeAt(0)));
  return compiled;
}

/** a + scale × b, by their places in the workspace. */
export interface Sum {
  a: number;
  scale: number;
  b: number;
}

/** A stretch of numbers at places of their own, by its places in the workspace. */
export interface Scattered {
  /** Whole numbers: where each number goes. */
  places: number;
  weights: number;
  scale: number;
}

/** The shape of a matrix in panels. */
interface Shape {
  rows: number;
  columns: number;
}

/** What is multiplied, by its places in the workspace. */
export interface Multiplication {
  /** rows × panels.rows, row-major, with room for {@link paddedRows}. */
  left: number;
  rows: number;
  panels: Panels;
  /** panels.columns numbers, added to every row. */
  bias: number;
  /** rows × panels.columns, row-major, with room for {@link paddedRows}. */
  result: number;
  /** Sets negative results to zero. */
  rectify?: boolean;
}

/**
 * A stretch of WebAssembly memory in which single-precision matrices are laid out and multiplied with SIMD.
 * Offsets are in bytes. Nothing is ever freed; a workspace goes as a whole.
 */
export class Workspace {
  readonly #memory: WebAssembly.Memory;
  readonly #kernel: Kernel;
  #end = 0;

  /** @param floats how many numbers it must hold in all */
  constructor(floats: number) {
    this.#memory = new WebAssembly.Memory({ initial: Math.ceil((floats * FLOAT_BYTES) / PAGE_BYTES) + 1 });
    const instance = new WebAssembly.Instance(kernelModule(), { env: { memory: this.#memory } });
    this.#kernel = instance.exports as unknown as Kernel;
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

  /** The whole numbers at an offset. */
  wholes(at: number, count: number): Int32Array {
    return new Int32Array(this.#memory.buffer, at, count);
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
  fillPanels(
    panels: Panels,
    matrix: ArrayLike<number>,
    { columns, rows = panels.rows, stride = columns }: { columns: number; rows?: number; stride?: number },
  ): void {
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

  /** Multiplies and adds a bias to every row. */
  multiply({ left, rows, panels, bias, result, rectify = false }: Multiplication): void {
    this.#kernel.multiply(
      left,
      panels.at,
      bias,
      result,
      paddedRows(rows),
      panels.rows,
      panels.columns,
      rectify ? 1 : 0,
    );
  }

  /** The sum of the products of two stretches of numbers. @param count a multiple of four */
  dot(a: number, b: number, count: number): number {
    return this.#kernel.dot(a, b, count);
  }

  /**
   * The products of one row after another with a vector.
   * @param into room for as many numbers as there are rows
   * @param rows a multiple of four
   * @param columns of a row, a multiple of four
   */
  products(left: number, vector: number, into: number, { rows, columns }: Shape): void {
    if (rows > 0) this.#kernel.products(left, vector, into, rows, columns);
  }

  /** Adds scale × weight to the number at each place. */
  spread(into: number, { places, weights, scale }: Scattered, count: number): void {
    this.#kernel.spread(into, places, weights, scale, count);
  }

  /** into = a + scale × b. @param count a multiple of four */
  combine(into: number, { a, scale, b }: Sum, count: number): void {
    this.#kernel.combine(into, a, scale, b, count);
  }

  /**
   * Turns each row of a matrix in panels into probabilities.
   * @param offsets a number for each column that is added first
   * @param rows a multiple of four
   */
  softmax(scores: number, offsets: number, into: number, { rows, columns }: Shape): void {
    const panels = columns / COLUMN_BLOCK;
    this.#kernel.softmax(scores, offsets, into, rows, panels, rows * COLUMN_BLOCK * FLOAT_BYTES);
  }

  /** into = weight of the row × into + scale × b, for matrices in panels. */
  weigh(into: number, weights: number, { scale, b }: Omit<Sum, 'a'>, { rows, columns }: Shape): void {
    this.#kernel.weigh(into, weights, scale, b, rows, columns / COLUMN_BLOCK);
  }
}

/** The shape of a product: left is rows × inner, right inner × columns. */
export interface ProductShape {
  rows: number;
  inner: number;
  columns: number;
  /** Whether the right matrix is given as columns × inner. */
  transposed?: boolean;
}

/** The product of two row-major matrices, row-major. */
export function product(
  left: Float32Array,
  right: Float32Array,
  { rows, inner, columns, transposed = false }: ProductShape,
): Float32Array {
  const wide = paddedColumns(columns);
  const space = new Workspace(paddedRows(rows) * (inner + wide) + (inner + 1) * wide + 64);
  const leftAt = space.reserve(paddedRows(rows) * inner);
  space.view(leftAt, rows * inner).set(left.subarray(0, rows * inner));
  const panels = space.reservePanels(inner, columns);
  if (transposed) space.fillTransposedPanels(panels, right, columns, inner);
  else space.fillPanels(panels, right, { columns });
  const zero = space.reserve(wide);
  const result = space.reserve(paddedRows(rows) * wide);
  space.multiply({ left: leftAt, rows, panels, bias: zero, result });
  const values = new Float32Array(rows * columns);
  for (let row = 0; row < rows; row++)
    values.set(space.view(result + row * wide * FLOAT_BYTES, columns), row * columns);
  return values;
}
