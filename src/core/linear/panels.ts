import { paddedColumns, paddedRows, Workspace, type Sum } from './workspace.js';

const BLOCK = 8;
/** What a column that only fills up a panel scores: no row is ever likely to be of it. */
const NEVER = -1e30;

/**
 * Matrices of one shape, rows × classes, kept in panels of eight columns so that the kernel works on them as they lie.
 * What fills up the panels counts for nothing. A matrix is known by its offset in the space.
 */
export class PanelMatrices {
  readonly rows: number;
  readonly classes: number;
  readonly #deep: number;
  readonly #wide: number;
  readonly #space: Workspace;
  readonly #offsets: Float32Array;
  readonly #offsetsAt: number;
  readonly #weights: Float32Array;
  readonly #weightsAt: number;
  readonly #noBias: number;

  /**
   * @param count how many matrices there is room for
   * @param more numbers that are set aside besides, with {@link reserve}
   */
  constructor(rows: number, classes: number, count: number, more = 0) {
    this.rows = rows;
    this.classes = classes;
    this.#deep = paddedRows(rows);
    this.#wide = paddedColumns(classes);
    this.#space = new Workspace(count * this.length + this.#wide + this.#deep + BLOCK + more + 64);
    this.#offsetsAt = this.#space.reserve(this.#wide);
    this.#offsets = this.#space.view(this.#offsetsAt, this.#wide).fill(NEVER, classes);
    this.#weightsAt = this.#space.reserve(this.#deep);
    this.#weights = this.#space.view(this.#weightsAt, this.#deep);
    this.#noBias = this.#space.reserve(BLOCK);
  }

  /** Numbers in one matrix, what fills it up included. */
  get length(): number {
    return this.#deep * this.#wide;
  }

  /** Sets matrices aside that lie one after the other. @returns the offset of the first */
  reserve(count = 1): number {
    return this.#space.reserve(count * this.length);
  }

  /** Lays a row-major matrix out. */
  write(at: number, matrix: ArrayLike<number>): void {
    const target = this.#space.view(at, this.length);
    for (let row = 0; row < this.rows; row++) {
      for (let column = 0; column < this.classes; column++)
        target[this.#place(row, column)] = matrix[row * this.classes + column]!;
    }
  }

  /** A matrix, row-major. */
  read(at: number): Float32Array {
    const source = this.#space.view(at, this.length);
    const matrix = new Float32Array(this.rows * this.classes);
    for (let row = 0; row < this.rows; row++) {
      for (let column = 0; column < this.classes; column++)
        matrix[row * this.classes + column] = source[this.#place(row, column)]!;
    }
    return matrix;
  }

  clear(at: number, matrices = 1): void {
    this.#space.view(at, matrices * this.length).fill(0);
  }

  dot(a: number, b: number): number {
    return this.#space.dot(a, b, this.length);
  }

  /** into = a + scale × b, for matrices that lie one after the other. */
  combine(into: number, sum: Sum, matrices = 1): void {
    this.#space.combine(into, sum, matrices * this.length);
  }

  /** Tells what is added to the last class before probabilities are taken, and how much each row counts. */
  prepare(lastOffset: number, weights: Float64Array): void {
    this.#offsets[this.classes - 1] = lastOffset;
    this.#weights.set(weights);
  }

  /**
   * Turns scores into probabilities.
   * @returns the negative log-likelihood of the labels, each row counted by its weight
   */
  softmax(scores: number, into: number, labels: Int32Array): number {
    this.#space.softmax(scores, this.#offsetsAt, into, { rows: this.#deep, columns: this.#wide });
    const probabilities = this.#space.view(into, this.length);
    let loss = 0;
    for (let row = 0; row < this.rows; row++) {
      const own = probabilities[this.#place(row, labels[row]!)]!;
      loss -= this.#weights[row]! * Math.log(Math.max(own, 1e-30));
    }
    return loss;
  }

  /** Takes one from the label of each row, then: into = weight of the row × into + scale × b. */
  weighResiduals(into: number, labels: Int32Array, scale: number, b: number): void {
    const residuals = this.#space.view(into, this.length);
    for (let row = 0; row < this.rows; row++) residuals[this.#place(row, labels[row]!)]! -= 1;
    this.#space.weigh(into, this.#weightsAt, { scale, b }, { rows: this.#deep, columns: this.#wide });
  }

  /** Lays a square matrix, rows × rows, out for {@link multiply}. @returns its offset */
  writeSquare(values: Float32Array): number {
    const at = this.#space.reserve(this.#deep * this.#deep);
    for (let row = 0; row < this.rows; row++)
      this.#space
        .view(at + row * this.#deep * Float32Array.BYTES_PER_ELEMENT, this.rows)
        .set(values.subarray(row * this.rows, (row + 1) * this.rows));
    return at;
  }

  /** Numbers that a square matrix takes. */
  static squareLength(rows: number): number {
    return paddedRows(rows) ** 2;
  }

  /** into = square × matrix. */
  multiply(square: number, matrix: number, into: number): void {
    const stride = this.#deep * BLOCK * Float32Array.BYTES_PER_ELEMENT;
    for (let panel = 0; panel < this.#wide / BLOCK; panel++) {
      const right = { at: matrix + panel * stride, rows: this.#deep, columns: BLOCK };
      this.#space.multiply({
        left: square,
        rows: this.#deep,
        panels: right,
        bias: this.#noBias,
        result: into + panel * stride,
      });
    }
  }

  #place(row: number, column: number): number {
    return (column - (column % BLOCK)) * this.#deep + row * BLOCK + (column % BLOCK);
  }
}
