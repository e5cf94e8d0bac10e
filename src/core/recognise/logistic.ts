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
  /** Stops when the gradient's length, relative to the first, falls below this. */
  tolerance: number;
}

const MEMORY = 6;

/** A direction in the space of coefficients, with its product with the Gram matrix. Both n × k, row-major. */
interface Direction {
  own: Float64Array;
  product: Float64Array;
}

/** Prepares the products of a Gram matrix with n × classes matrices. */
function gramProduct({ size, values }: Gram, classes: number): (matrix: Float64Array) => Float64Array {
  const wide = paddedColumns(classes);
  const rows = paddedRows(size);
  const space = new Workspace(rows * size + size * wide + rows * wide + wide + 64);
  const left = space.reserve(rows * size);
  space.view(left, size * size).set(values);
  const panels = space.reservePanels(size, classes);
  const zero = space.reserve(wide);
  const result = space.reserve(rows * wide);
  return (matrix) => {
    space.fillPanels(panels, matrix, classes);
    space.multiply(left, size, panels, zero, result);
    const padded = space.view(result, size * wide);
    const product = new Float64Array(size * classes);
    for (let row = 0; row < size; row++) {
      for (let column = 0; column < classes; column++) product[row * classes + column] = padded[row * wide + column]!;
    }
    return product;
  };
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let index = 0; index < a.length; index++) sum += a[index]! * b[index]!;
  return sum;
}

function addScaled(target: Float64Array, scale: number, source: Float64Array): void {
  for (let index = 0; index < target.length; index++) target[index]! += scale * source[index]!;
}

function scaled(source: Float64Array, scale: number): Float64Array {
  const result = new Float64Array(source.length);
  for (let index = 0; index < source.length; index++) result[index] = scale * source[index]!;
  return result;
}

/** a + scale × b */
function sum(a: Direction, scale: number, b: Direction): Direction {
  const result = { own: scaled(b.own, scale), product: scaled(b.product, scale) };
  addScaled(result.own, 1, a.own);
  addScaled(result.product, 1, a.product);
  return result;
}

/** Turns scores into probabilities in place. @returns the weighted negative log-likelihood of the labels (-1: no label) */
export function softmaxRows(scores: Float64Array, classes: number, labels: Int32Array, weights?: Float64Array): number {
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
 * features themselves. Deterministic.
 * @param labels class of each row, 0..classes-1
 * @param weights how much each row counts
 * @returns coefficients, n × classes: the weights are Σ coefficient × features
 */
export function fitLogistic(
  gram: Gram,
  labels: Int32Array,
  weights: Float64Array,
  classes: number,
  settings: LogisticSettings,
): Float64Array {
  const multiply = gramProduct(gram, classes);
  const size = gram.size * classes;
  const at: Direction = { own: new Float64Array(size), product: new Float64Array(size) };
  const penalty = 1 / settings.inversePenalty;

  const evaluate = (point: Direction): { loss: number; gradient: Float64Array } => {
    const gradient = point.product.slice();
    const loss = softmaxRows(gradient, classes, labels, weights);
    for (let row = 0; row < labels.length; row++) {
      const weight = weights[row]!;
      gradient[row * classes + labels[row]!]! -= 1;
      for (let column = 0; column < classes; column++) gradient[row * classes + column]! *= weight;
    }
    for (let index = 0; index < size; index++) gradient[index]! += penalty * point.own[index]!;
    return { loss: loss + (penalty / 2) * dot(point.own, point.product), gradient };
  };

  const start = evaluate(at);
  let loss = start.loss;
  let gradient: Direction = { own: start.gradient, product: multiply(start.gradient) };
  const first = Math.sqrt(Math.max(dot(gradient.own, gradient.product), 0));
  const history: { step: Direction; change: Direction; inverse: number }[] = [];

  for (let count = 0; count < settings.maxSteps; count++) {
    const length = Math.sqrt(Math.max(dot(gradient.own, gradient.product), 0));
    if (length <= settings.tolerance * first || length === 0) break;
    const direction = scaled(gradient.own, -1);
    const factors: number[] = [];
    for (const { step, change, inverse } of history.toReversed()) {
      const factor = inverse * dot(step.product, direction);
      factors.push(factor);
      addScaled(direction, -factor, change.own);
    }
    const latest = history.at(-1);
    const scale = latest
      ? 1 / (latest.inverse * dot(latest.change.own, latest.change.product))
      : 1 / Math.max(length, 1);
    const own = scaled(direction, scale);
    for (const { step, change, inverse } of history) {
      const factor = inverse * dot(change.product, own);
      addScaled(own, factors.pop()! - factor, step.own);
    }
    const shaped: Direction = { own, product: multiply(own) };
    const slope = dot(gradient.product, shaped.own);
    if (slope >= 0) break;
    let rate = 1;
    let next: { point: Direction; loss: number; gradient: Float64Array } | null = null;
    for (let attempt = 0; attempt < 20; attempt++, rate /= 2) {
      const point = sum(at, rate, shaped);
      const result = evaluate(point);
      if (result.loss <= loss + 1e-4 * rate * slope) {
        next = { point, loss: result.loss, gradient: result.gradient };
        break;
      }
    }
    if (!next) break;
    const nextGradient: Direction = { own: next.gradient, product: multiply(next.gradient) };
    const step = sum(next.point, -1, at);
    const change = sum(nextGradient, -1, gradient);
    const curvature = dot(step.product, change.own);
    if (curvature > 1e-12) history.push({ step, change, inverse: 1 / curvature });
    if (history.length > MEMORY) history.shift();
    at.own = next.point.own;
    at.product = next.point.product;
    loss = next.loss;
    gradient = nextGradient;
  }
  return at.own;
}
