import type { Check } from './check.js';
import { PanelMatrices } from '../linear/panels.js';
import type { Gram } from './gram.js';

/** Settings of the regression. */
export interface LogisticSettings {
  /** Inverse strength of the L2 penalty on the weights. */
  inversePenalty: number;
  /** The most steps taken. */
  maxSteps: number;
  /** Stops when the gradient's length, relative to that at zero, falls below this. */
  tolerance: number;
  /** Called at each step. */
  check: Check;
}

/** Where a regression begins, and how many steps it takes at most. */
export interface LogisticStart {
  /** n × classes. */
  coefficients: Float32Array;
  steps: number;
}

/** Steps that the quasi-Newton method remembers. */
const MEMORY = 5;
/** Matrices of a direction: itself and its product with the Gram matrix, one after the other. */
const PAIR = 2;
const DIRECTIONS = 6 + 2 * MEMORY;

/** A step that was taken, with the change of the gradient along it. */
interface Step {
  step: number;
  change: number;
  inverse: number;
}

/** Turns scores, n × classes, into probabilities in place. */
export function softmaxRows(scores: Float64Array, classes: number): void {
  for (let at = 0; at < scores.length; at += classes) {
    let highest = -Infinity;
    for (let column = 0; column < classes; column++) highest = Math.max(highest, scores[at + column]!);
    let total = 0;
    for (let column = 0; column < classes; column++) {
      const value = Math.exp(scores[at + column]! - highest);
      scores[at + column] = value;
      total += value;
    }
    for (let column = 0; column < classes; column++) scores[at + column]! /= total;
  }
}

/**
 * Multinomial logistic regression with an L2 penalty, solved over the Gram matrix of the training texts by L-BFGS
 * (Nocedal, 1980) in the inner product of the weights, so that the result is that of the linear model over the
 * features themselves. Deterministic.
 */
export class LogisticProblem {
  readonly #labels: Int32Array;
  readonly #settings: LogisticSettings;
  readonly #matrices: PanelMatrices;
  readonly #gram: number;
  readonly #zero: number;
  readonly #point: number;
  readonly #next: number;
  readonly #gradient: number;
  readonly #nextGradient: number;
  readonly #search: number;
  readonly #spare: Step[];

  /** @param labels class of each row, 0..classes-1 */
  constructor(gram: Gram, labels: Int32Array, classes: number, settings: LogisticSettings) {
    this.#labels = labels;
    this.#settings = settings;
    const square = PanelMatrices.squareLength(gram.size);
    this.#matrices = new PanelMatrices(gram.size, classes, PAIR * DIRECTIONS, square);
    this.#gram = this.#matrices.writeSquare(gram.values);
    const direction = () => this.#matrices.reserve(PAIR);
    [this.#zero, this.#point, this.#next, this.#gradient, this.#nextGradient, this.#search] = [
      direction(),
      direction(),
      direction(),
      direction(),
      direction(),
      direction(),
    ];
    this.#spare = Array.from({ length: MEMORY }, () => ({ step: direction(), change: direction(), inverse: 0 }));
  }

  /**
   * @param weights how much each row counts
   * @param start near the result; without one it begins at zero
   * @returns coefficients, n × classes, row-major: the weights of the linear model are Σ coefficient × features
   */
  fit(weights: Float64Array, start?: LogisticStart): Float32Array {
    const matrices = this.#matrices;
    const [point, gradient, search] = [this.#point, this.#gradient, this.#search];
    const mostSteps = start?.steps ?? this.#settings.maxSteps;
    matrices.prepare(0, weights);
    matrices.clear(point, PAIR);
    if (start) {
      matrices.write(point, start.coefficients);
      this.#multiply(point);
    }
    let loss = this.#evaluate(point, gradient);
    const enough = start ? 0 : this.#settings.tolerance * this.#length(gradient);
    const history: Step[] = [];
    for (let count = 0; count < mostSteps; count++) {
      this.#settings.check();
      const length = this.#length(gradient);
      if (length <= enough || length === 0) break;
      this.#direct(history, length);
      const slope = this.#inner(gradient, search);
      if (slope >= 0) break;
      const reached = this.#descend(loss, slope);
      if (reached === null) break;
      loss = reached;
      const entry = history.length < MEMORY ? this.#spare[history.length]! : history.shift()!;
      this.#combine(entry.step, this.#next, -1, point);
      this.#combine(entry.change, this.#nextGradient, -1, gradient);
      const curvature = this.#inner(entry.step, entry.change);
      if (curvature <= 1e-12) break;
      entry.inverse = 1 / curvature;
      history.push(entry);
      this.#combine(point, this.#next, 0, point);
      this.#combine(gradient, this.#nextGradient, 0, gradient);
    }
    return matrices.read(point);
  }

  #productOf(direction: number): number {
    return direction + this.#matrices.length * Float32Array.BYTES_PER_ELEMENT;
  }

  /** Multiplies a direction with the Gram matrix. */
  #multiply(direction: number): void {
    this.#matrices.multiply(this.#gram, direction, this.#productOf(direction));
  }

  /** The inner product of two directions in the space of the weights. */
  #inner(a: number, b: number): number {
    return this.#matrices.dot(this.#productOf(a), b);
  }

  #length(direction: number): number {
    return Math.sqrt(Math.max(this.#inner(direction, direction), 0));
  }

  #combine(into: number, a: number, scale: number, b: number): void {
    this.#matrices.combine(into, { a, scale, b }, PAIR);
  }

  /** The penalised loss at a point; the gradient goes to `into`. */
  #evaluate(point: number, into: number): number {
    const penalty = 1 / this.#settings.inversePenalty;
    const loss = this.#matrices.softmax(this.#productOf(point), into, this.#labels);
    this.#matrices.weighResiduals(into, this.#labels, penalty, point);
    this.#multiply(into);
    return loss + (penalty / 2) * this.#inner(point, point);
  }

  /** The direction to search in, by the two loops of L-BFGS. @param length of the gradient */
  #direct(history: readonly Step[], length: number): void {
    const search = this.#search;
    this.#combine(search, this.#zero, -1, this.#gradient);
    const factors: number[] = [];
    for (const { step, change, inverse } of history.toReversed()) {
      const factor = inverse * this.#inner(step, search);
      factors.push(factor);
      this.#combine(search, search, -factor, change);
    }
    const latest = history.at(-1);
    const scale = latest ? 1 / (latest.inverse * this.#inner(latest.change, latest.change)) : 1 / Math.max(length, 1);
    this.#combine(search, this.#zero, scale, search);
    for (const { step, change, inverse } of history) {
      const factor = inverse * this.#inner(change, search);
      this.#combine(search, search, factors.pop()! - factor, step);
    }
  }

  /** Goes along the direction until the loss falls enough. @returns the loss there; `null` if it does not fall */
  #descend(loss: number, slope: number): number | null {
    let rate = 1;
    for (let attempt = 0; attempt < 20; attempt++, rate /= 2) {
      this.#combine(this.#next, this.#point, rate, this.#search);
      const reached = this.#evaluate(this.#next, this.#nextGradient);
      if (reached <= loss + 1e-4 * rate * slope) return reached;
    }
    return null;
  }
}
