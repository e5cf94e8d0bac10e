import { paddedRows, Workspace } from './workspace.js';

/** Rows of a matrix that stay in the kernel's memory and are compared with one vector at a time. */
export class RowTable {
  readonly #space: Workspace;
  readonly #shape: { rows: number; columns: number };
  readonly #rows: number;
  readonly #vector: number;
  readonly #vectorView: Float32Array;
  readonly #products: number;
  readonly #productsView: Float32Array;

  /** @param rows row-major @param width of a row, a multiple of four */
  constructor(rows: Float32Array, width: number) {
    const size = rows.length / width;
    this.#shape = { rows: paddedRows(size), columns: width };
    this.#space = new Workspace(this.#shape.rows * (width + 1) + width + 16);
    this.#rows = this.#space.reserve(this.#shape.rows * width);
    this.#vector = this.#space.reserve(width);
    this.#vectorView = this.#space.view(this.#vector, width);
    this.#products = this.#space.reserve(this.#shape.rows);
    this.#productsView = this.#space.view(this.#products, size);
    this.#space.view(this.#rows, rows.length).set(rows);
  }

  get size(): number {
    return this.#productsView.length;
  }

  /** The product of a vector with each row; the next call writes over them. */
  products(vector: Float32Array): Readonly<Float32Array> {
    this.#vectorView.set(vector);
    this.#space.products(this.#rows, this.#vector, this.#products, this.#shape);
    return this.#productsView;
  }
}
