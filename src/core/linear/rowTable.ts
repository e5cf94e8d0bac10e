import { Workspace } from './workspace.js';

/** Rows of a matrix that stay in the kernel's memory and are compared with one vector at a time. */
export class RowTable {
  readonly #space: Workspace;
  readonly #width: number;
  readonly #rows: number;
  readonly #vector: number;
  readonly size: number;

  /** @param rows row-major @param width of a row, a multiple of four */
  constructor(rows: Float32Array, width: number) {
    this.#width = width;
    this.size = rows.length / width;
    this.#space = new Workspace(rows.length + width + 16);
    this.#rows = this.#space.reserve(rows.length);
    this.#vector = this.#space.reserve(width);
    this.#space.view(this.#rows, rows.length).set(rows);
  }

  /** The product of a vector with each row. @param places of the rows asked for; all of them otherwise */
  products(vector: Float32Array, places?: Int32Array): Float32Array {
    this.#space.view(this.#vector, this.#width).set(vector);
    const stride = this.#width * Float32Array.BYTES_PER_ELEMENT;
    const products = new Float32Array(places?.length ?? this.size);
    for (let at = 0; at < products.length; at++)
      products[at] = this.#space.dot(this.#rows + (places?.[at] ?? at) * stride, this.#vector, this.#width);
    return products;
  }

  /** A row; it stays as it is. */
  row(place: number): Float32Array {
    const stride = this.#width * Float32Array.BYTES_PER_ELEMENT;
    return this.#space.view(this.#rows + place * stride, this.#width);
  }
}
