import { paddedColumns, paddedRows, Workspace } from '../linear/workspace.js';

/** A square symmetric matrix, row-major. */
export interface Gram {
  size: number;
  values: Float32Array;
}

/** Settings of the regression. */
export interface LogisticSettings {
  /** Inverse strength of the L2 penalty on the weights. */
  inversePenalty: number;
  /** The most steps taken. */
  maxSteps: number;
  /** Stops when the gradient's length, relative to that at zero, falls below this. */
  tolerance: number;
}

/** What a regression found. Both n × classes, row-major. */
export interface LogisticFit {
  /** The weights of the linear model are Σ coefficient × features. */
  coefficients: Float32Array;
  /** What the model scores each row, those that count for nothing too. */
  scores: Float32Array;
}

/** Steps that the quasi-Newton method remembers. */
const MEMORY = 5;

/** A point or direction in the space of coefficients, with its product with the Gram matrix. Both n × k, row-major. */
class Direction {
  readonly own: Float32Array;
  readonly product: Float32Array;

  constructor(size: number) {
    this.own = new Float32Array(size);
    this.product = new Float32Array(size);
  }

  set(other: Direction): void {
    this.own.set(other.own);
    this.product.set(other.product);
  }

  /** this = a + scale × b */
  setSum(a: Direction, scale: number, b: Direction): void {
    for (let at = 0; at < this.own.length; at++) {
      this.own[at] = a.own[at]! + scale * b.own[at]!;
      this.product[at] = a.product[at]! + scale * b.product[at]!;
    }
  }

  /** this += scale × other */
  add(scale: number, other: Direction): void {
    this.setSum(this, scale, other);
  }

  scale(factor: number): void {
    for (let at = 0; at < this.own.length; at++) {
      this.own[at]! *= factor;
      this.product[at]! *= factor;
    }
  }
}

/** The inner product of two directions in the space of the weights. */
function inner(a: Direction, b: Direction): number {
  let sum = 0;
  for (let at = 0; at < a.own.length; at++) sum += a.product[at]! * b.own[at]!;
  return sum;
}

/** Turns scores into probabilities in place. @returns the weighted negative log-likelihood of the labels (-1: no label) */
export function softmaxRows(
  scores: Float64Array | Float32Array,
  classes: number,
  labels: Int32Array,
  weights?: Float64Array,
): number {
  let loss = 0;
  for (let row = 0; row < labels.length; row++) {
    const at = row * classes;
    let highest = -Infinity;
    for (let column = 0; column < classes; column++) highest = Math.max(highest, scores[at + column]!);
    let total = 0;
    for (let column = 0; column < classes; column++) {
      const value = Math.exp(scores[at + column]! - highest);
      scores[at + column] = value;
      total += value;
    }
    for (let column = 0; column < classes; column++) scores[at + column]! /= total;
    const label = labels[row]!;
    if (label >= 0) loss -= (weights?.[row] ?? 1) * Math.log(Math.max(scores[at + label]!, 1e-300));
  }
  return loss;
}

/**
 * Multinomial logistic regression with an L2 penalty, solved over the Gram matrix of the training texts by L-BFGS
 * (Nocedal, 1980) in the inner product of the weights, so that the result is that of the linear model over the
 * features themselves. Deterministic. One problem serves many fits over the same rows that weigh them differently.
 */
export class LogisticProblem {
  readonly #labels: Int32Array;
  readonly #classes: number;
  readonly #settings: LogisticSettings;
  readonly #size: number;
  readonly #multiply: (matrix: Float32Array, into: Float32Array) => void;
  readonly #point: Direction;
  readonly #next: Direction;
  readonly #gradient: Direction;
  readonly #nextGradient: Direction;
  readonly #search: Direction;
  readonly #spare: { step: Direction; change: Direction; inverse: number }[];

  /** @param labels class of each row, 0..classes-1 */
  constructor(gram: Gram, labels: Int32Array, classes: number, settings: LogisticSettings) {
    this.#labels = labels;
    this.#classes = classes;
    this.#settings = settings;
    this.#size = gram.size * classes;
    this.#multiply = gramProduct(gram, classes);
    const direction = () => new Direction(this.#size);
    [this.#point, this.#next, this.#gradient, this.#nextGradient, this.#search] = [
      direction(),
      direction(),
      direction(),
      direction(),
      direction(),
    ];
    this.#spare = Array.from({ length: MEMORY }, () => ({ step: direction(), change: direction(), inverse: 0 }));
  }

  /**
   * @param weights how much each row counts; rows of weight 0 are scored without being learned from
   * @param start coefficients to begin with, n × classes; those of rows of weight 0 are taken as 0
   * @param mostSteps steps taken at most
   */
  fit(weights: Float64Array, start?: Float32Array, mostSteps = this.#settings.maxSteps): LogisticFit {
    const { tolerance } = this.#settings;
    const [point, gradient, search] = [this.#point, this.#gradient, this.#search];
    point.own.fill(0);
    point.product.fill(0);
    const enough = tolerance * this.#lengthAtZero(weights);
    if (start) {
      point.own.set(start);
      weights.forEach((weight, row) => {
        if (weight === 0) point.own.fill(0, row * this.#classes, (row + 1) * this.#classes);
      });
      this.#multiply(point.own, point.product);
    }
    let loss = this.#evaluate(point, weights, gradient);
    const history: { step: Direction; change: Direction; inverse: number }[] = [];
    for (let count = 0; count < mostSteps; count++) {
      const length = Math.sqrt(Math.max(inner(gradient, gradient), 0));
      if (length <= enough || length === 0) break;
      this.#direct(history, length);
      const slope = inner(gradient, search);
      if (slope >= 0) break;
      const reached = this.#descend(weights, loss, slope);
      if (reached === null) break;
      loss = reached;
      const entry = history.length < MEMORY ? this.#spare[history.length]! : history.shift()!;
      entry.step.setSum(this.#next, -1, point);
      entry.change.setSum(this.#nextGradient, -1, gradient);
      const curvature = inner(entry.step, entry.change);
      if (curvature <= 1e-12) break;
      entry.inverse = 1 / curvature;
      history.push(entry);
      point.set(this.#next);
      gradient.set(this.#nextGradient);
    }
    return { coefficients: point.own.slice(), scores: point.product.slice() };
  }

  #lengthAtZero(weights: Float64Array): number {
    this.#evaluate(this.#point, weights, this.#gradient);
    return Math.sqrt(Math.max(inner(this.#gradient, this.#gradient), 0));
  }

  /** The penalised loss at a point; the gradient goes to `into`. */
  #evaluate(point: Direction, weights: Float64Array, into: Direction): number {
    const classes = this.#classes;
    const labels = this.#labels;
    const penalty = 1 / this.#settings.inversePenalty;
    into.own.set(point.product);
    const loss = softmaxRows(into.own, classes, labels, weights);
    for (let row = 0; row < labels.length; row++) {
      const weight = weights[row]!;
      const at = row * classes;
      into.own[at + labels[row]!]! -= 1;
      for (let column = 0; column < classes; column++) {
        into.own[at + column] = weight * into.own[at + column]! + penalty * point.own[at + column]!;
      }
    }
    this.#multiply(into.own, into.product);
    return loss + (penalty / 2) * inner(point, point);
  }

  /** The direction to search in, by the two loops of L-BFGS. @param length of the gradient */
  #direct(history: readonly { step: Direction; change: Direction; inverse: number }[], length: number): void {
    const search = this.#search;
    search.set(this.#gradient);
    search.scale(-1);
    const factors: number[] = [];
    for (const { step, change, inverse } of history.toReversed()) {
      const factor = inverse * inner(step, search);
      factors.push(factor);
      search.add(-factor, change);
    }
    const latest = history.at(-1);
    search.scale(latest ? 1 / (latest.inverse * inner(latest.change, latest.change)) : 1 / Math.max(length, 1));
    for (const { step, change, inverse } of history) {
      const factor = inverse * inner(change, search);
      search.add(factors.pop()! - factor, step);
    }
  }

  /** Goes along the direction until the loss falls enough. @returns the loss there; `null` if it does not fall */
  #descend(weights: Float64Array, loss: number, slope: number): number | null {
    let rate = 1;
    for (let attempt = 0; attempt < 20; attempt++, rate /= 2) {
      this.#next.setSum(this.#point, rate, this.#search);
      const reached = this.#evaluate(this.#next, weights, this.#nextGradient);
      if (reached <= loss + 1e-4 * rate * slope) return reached;
    }
    return null;
  }
}

/** Prepares the products of a Gram matrix with n × classes matrices. */
function gramProduct({ size, values }: Gram, classes: number): (matrix: Float32Array, into: Float32Array) => void {
  const wide = paddedColumns(classes);
  const rows = paddedRows(size);
  const space = new Workspace(rows * size + size * wide + rows * wide + wide + 64);
  const left = space.reserve(rows * size);
  space.view(left, size * size).set(values);
  const panels = space.reservePanels(size, classes);
  const zero = space.reserve(wide);
  const result = space.reserve(rows * wide);
  return (matrix, into) => {
    space.fillPanels(panels, matrix, classes);
    space.multiply(left, size, panels, zero, result);
    const padded = space.view(result, size * wide);
    for (let row = 0; row < size; row++) {
      for (let column = 0; column < classes; column++) into[row * classes + column] = padded[row * wide + column]!;
    }
  };
}
