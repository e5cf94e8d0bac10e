import { VECTOR_LENGTH } from './encoder.js';
import { paddedColumns, Workspace, type Panels, type Multiplication } from '../linear/workspace.js';

/** Weights by name, each row-major. The names are those of {@link WEIGHT_NAMES}. */
export type Weights = Readonly<Record<string, Float32Array>>;

interface Dense {
  matrix: Panels;
  /** Byte offset of the bias. */
  bias: number;
}

interface Norm {
  scale: Float32Array;
  bias: Float32Array;
}

interface Layer {
  width: number;
  attentionNorm: Norm;
  /** Brings the layer's input to the output width, where the two differ. */
  residual: Dense | null;
  queryKeyValue: Dense;
  output: Dense;
  forwardNorm: Norm;
  expand: Dense;
  contract: Dense;
}

const EMBEDDING_WIDTH = 256;
const MODEL_WIDTH = 512;
const INNER_WIDTH = 1536;
const HEADS = 4;
const NORM_EPSILON = 1e-6;

/** The most pieces of one text that are read; the rest is left out. */
export const LONGEST_TEXT = 128;
/** The most pieces encoded at once; larger batches are divided. */
const BATCH_ROWS = 512;

const MOST_ROWS = BATCH_ROWS + LONGEST_TEXT;

/** Room for what passes through the layers, in numbers: rows of all texts first, then what one head of one text needs. */
const BUFFERS = [
  ['stream', MOST_ROWS * MODEL_WIDTH],
  ['normal', MOST_ROWS * MODEL_WIDTH],
  ['joined', MOST_ROWS * MODEL_WIDTH],
  ['wide', MOST_ROWS * INNER_WIDTH],
  ['query', LONGEST_TEXT * (MODEL_WIDTH / HEADS)],
  ['keys', LONGEST_TEXT * (MODEL_WIDTH / HEADS)],
  ['values', LONGEST_TEXT * (MODEL_WIDTH / HEADS)],
  ['weights', LONGEST_TEXT * LONGEST_TEXT],
  ['mixed', LONGEST_TEXT * (MODEL_WIDTH / HEADS)],
  ['zero', INNER_WIDTH],
] as const;

/** Turns each row into shares that add up to one (softmax); columns from `length` on are padding and get none. */
function softenRows(rows: Float32Array, length: number, wide: number, scale: number): void {
  for (let row = 0; row < length; row++) {
    const at = row * wide;
    let highest = -Infinity;
    for (let column = 0; column < length; column++) highest = Math.max(highest, rows[at + column]!);
    let total = 0;
    for (let column = 0; column < length; column++) {
      const share = Math.exp((rows[at + column]! - highest) * scale);
      rows[at + column] = share;
      total += share;
    }
    for (let column = 0; column < length; column++) rows[at + column]! /= total;
    rows.fill(0, at + length, at + wide);
  }
}

/** Sines and cosines of each place in a text (Vaswani et al., 2017). */
function placeSignals(timescales: Float32Array): Float32Array {
  const half = EMBEDDING_WIDTH / 2;
  return Float32Array.from({ length: LONGEST_TEXT * EMBEDDING_WIDTH }, (_, at) => {
    const column = at % EMBEDDING_WIDTH;
    const angle = Math.floor(at / EMBEDDING_WIDTH) * timescales[column % half]!;
    return column < half ? Math.sin(angle) : Math.cos(angle);
  });
}

const layerNames = (layer: number) => ({
  attentionNormScale: `layer${layer}.attentionNorm.scale`,
  attentionNormBias: `layer${layer}.attentionNorm.bias`,
  queryKeyValueMatrix: `layer${layer}.queryKeyValue.matrix`,
  queryKeyValueBias: `layer${layer}.queryKeyValue.bias`,
  outputMatrix: `layer${layer}.output.matrix`,
  outputBias: `layer${layer}.output.bias`,
  forwardNormScale: `layer${layer}.forwardNorm.scale`,
  forwardNormBias: `layer${layer}.forwardNorm.bias`,
  expandMatrix: `layer${layer}.expand.matrix`,
  expandBias: `layer${layer}.expand.bias`,
  contractMatrix: `layer${layer}.contract.matrix`,
  contractBias: `layer${layer}.contract.bias`,
});

/** Every weight the transformer asks for. */
export const WEIGHT_NAMES: readonly string[] = [
  'embeddings',
  'timescales',
  'residual.matrix',
  'residual.bias',
  'final.matrix',
  'final.bias',
  ...Object.values(layerNames(0)),
  ...Object.values(layerNames(1)),
];

/**
 * A two-layer transformer (pre-normalised, Vaswani et al., 2017) that turns the pieces of a text into one unit
 * vector: mean of the last layer, a tanh layer, length one. Matrix products run in a WebAssembly SIMD kernel.
 */
export class Transformer {
  readonly #weights: Weights;
  readonly #space: Workspace;
  readonly #layers: Layer[];
  readonly #final: Dense;
  /** What tells the places of pieces apart, {@link LONGEST_TEXT} × {@link EMBEDDING_WIDTH}. */
  readonly #positions: Float32Array;
  readonly #buffers: Record<(typeof BUFFERS)[number][0], number>;

  /** @throws if a weight is missing or the WebAssembly of this machine has no SIMD */
  constructor(weights: Weights) {
    this.#weights = weights;
    const weightFloats = Object.values(weights).reduce((sum, weight) => sum + weight.length + 8, 0);
    const bufferFloats = BUFFERS.reduce((sum, [, floats]) => sum + floats + 8, 0);
    const space = new Workspace(weightFloats + bufferFloats + 64);
    this.#space = space;
    this.#layers = [this.#readLayer(0, EMBEDDING_WIDTH), this.#readLayer(1, MODEL_WIDTH)];
    this.#positions = placeSignals(this.#get('timescales'));
    this.#final = this.#readDense('final.matrix', 'final.bias', MODEL_WIDTH, VECTOR_LENGTH);
    this.#buffers = Object.fromEntries(BUFFERS.map(([name, floats]) => [name, space.reserve(floats)])) as never;
  }

  /** @param texts piece numbers of each text
   *  @returns a unit vector for each, in their order */
  encode(texts: readonly (readonly number[])[]): Float32Array[] {
    const vectors: Float32Array[] = [];
    let batch: (readonly number[])[] = [];
    let rows = 0;
    for (const text of texts) {
      const pieces = text.length > 0 ? text.slice(0, LONGEST_TEXT) : [0];
      if (rows + pieces.length > BATCH_ROWS && batch.length > 0) {
        vectors.push(...this.#encodeBatch(batch));
        batch = [];
        rows = 0;
      }
      batch.push(pieces);
      rows += pieces.length;
    }
    if (batch.length > 0) vectors.push(...this.#encodeBatch(batch));
    return vectors;
  }

  #get(name: string): Float32Array {
    const weight = this.#weights[name];
    if (!weight) throw new Error(`The sentence encoder's weights lack "${name}".`);
    return weight;
  }

  #readDense(matrix: string, bias: string, inputs: number, outputs: number): Dense {
    const panels = this.#space.reservePanels(inputs, outputs);
    this.#space.fillPanels(panels, this.#get(matrix), { columns: outputs });
    const biasAt = this.#space.reserve(outputs);
    this.#space.view(biasAt, outputs).set(this.#get(bias));
    return { matrix: panels, bias: biasAt };
  }

  #readLayer(layer: number, width: number): Layer {
    const names = layerNames(layer);
    return {
      width,
      attentionNorm: { scale: this.#get(names.attentionNormScale), bias: this.#get(names.attentionNormBias) },
      residual: width === MODEL_WIDTH ? null : this.#readDense('residual.matrix', 'residual.bias', width, MODEL_WIDTH),
      queryKeyValue: this.#readDense(names.queryKeyValueMatrix, names.queryKeyValueBias, width, 3 * width),
      output: this.#readDense(names.outputMatrix, names.outputBias, width, MODEL_WIDTH),
      forwardNorm: { scale: this.#get(names.forwardNormScale), bias: this.#get(names.forwardNormBias) },
      expand: this.#readDense(names.expandMatrix, names.expandBias, MODEL_WIDTH, INNER_WIDTH),
      contract: this.#readDense(names.contractMatrix, names.contractBias, INNER_WIDTH, MODEL_WIDTH),
    };
  }

  #apply({ matrix, bias }: Dense, places: Pick<Multiplication, 'left' | 'result' | 'rows' | 'rectify'>): void {
    this.#space.multiply({ ...places, panels: matrix, bias });
  }

  #encodeBatch(texts: readonly (readonly number[])[]): Float32Array[] {
    const starts: number[] = [];
    let rows = 0;
    for (const text of texts) {
      starts.push(rows);
      rows += text.length;
    }
    this.#embed(texts);
    for (const layer of this.#layers) this.#runLayer(layer, texts, starts, rows);
    return this.#pool(texts, starts);
  }

  #embed(texts: readonly (readonly number[])[]): void {
    const embeddings = this.#get('embeddings');
    const stream = this.#space.view(this.#buffers.stream, MOST_ROWS * MODEL_WIDTH);
    let row = 0;
    for (const text of texts) {
      text.forEach((piece, position) => {
        const at = row * EMBEDDING_WIDTH;
        for (let column = 0; column < EMBEDDING_WIDTH; column++) {
          const signal = this.#positions[position * EMBEDDING_WIDTH + column]!;
          stream[at + column] = 2 * embeddings[piece * EMBEDDING_WIDTH + column]! + signal;
        }
        row++;
      });
    }
  }

  #runLayer(layer: Layer, texts: readonly (readonly number[])[], starts: readonly number[], rows: number): void {
    const { stream, normal, wide, joined } = this.#buffers;
    this.#normalise(layer.attentionNorm, stream, normal, { rows, width: layer.width });
    this.#apply(layer.queryKeyValue, { left: normal, result: wide, rows });
    if (layer.residual) {
      this.#apply(layer.residual, { left: stream, result: normal, rows });
      this.#space.view(stream, rows * MODEL_WIDTH).set(this.#space.view(normal, rows * MODEL_WIDTH));
    }
    texts.forEach((text, index) => this.#attend(starts[index] ?? 0, text.length, layer.width));
    this.#apply(layer.output, { left: joined, result: normal, rows });
    this.#add(normal, stream, rows);
    this.#normalise(layer.forwardNorm, stream, normal, { rows, width: MODEL_WIDTH });
    this.#apply(layer.expand, { left: normal, result: wide, rows, rectify: true });
    this.#apply(layer.contract, { left: wide, result: normal, rows });
    this.#add(normal, stream, rows);
  }

  #add(from: number, to: number, rows: number): void {
    const source = this.#space.view(from, rows * MODEL_WIDTH);
    const target = this.#space.view(to, rows * MODEL_WIDTH);
    for (let index = 0; index < source.length; index++) target[index]! += source[index]!;
  }

  #normalise(norm: Norm, from: number, to: number, { rows, width }: { rows: number; width: number }): void {
    const source = this.#space.view(from, rows * width);
    const target = this.#space.view(to, rows * width);
    for (let row = 0; row < rows; row++) {
      const at = row * width;
      let mean = 0;
      for (let column = 0; column < width; column++) mean += source[at + column] ?? 0;
      mean /= width;
      let variance = 0;
      for (let column = 0; column < width; column++) variance += (source[at + column]! - mean) ** 2;
      const scale = 1 / Math.sqrt(variance / width + NORM_EPSILON);
      for (let column = 0; column < width; column++) {
        target[at + column] = (source[at + column]! - mean) * scale * norm.scale[column]! + norm.bias[column]!;
      }
    }
  }

  /** Attention of one text upon itself, head by head: softmax(Q · Kᵀ / √width) · V. */
  #attend(start: number, length: number, width: number): void {
    const rowWidth = 3 * width;
    const headWidth = width / HEADS;
    const input = this.#space.view(this.#buffers.wide + start * rowWidth * 4, length * rowWidth);
    const output = this.#space.view(this.#buffers.joined + start * width * 4, length * width);
    const { query, weights, mixed, zero } = this.#buffers;
    const wide = paddedColumns(length);
    const keys: Panels = { at: this.#buffers.keys, rows: headWidth, columns: wide };
    const values: Panels = { at: this.#buffers.values, rows: wide, columns: headWidth };
    const queries = this.#space.view(query, length * headWidth);
    const results = this.#space.view(mixed, length * headWidth);
    const rows = this.#space.view(weights, length * wide);
    const scale = 1 / Math.sqrt(headWidth);
    for (let head = 0; head < HEADS; head++) {
      const at = head * headWidth;
      for (let row = 0; row < length; row++) {
        queries.set(input.subarray(row * rowWidth + at, row * rowWidth + at + headWidth), row * headWidth);
      }
      this.#space.fillTransposedPanels(keys, input.subarray(width + at), length, rowWidth);
      this.#space.fillPanels(values, input.subarray(2 * width + at), {
        columns: headWidth,
        rows: length,
        stride: rowWidth,
      });
      this.#space.multiply({ left: query, rows: length, panels: keys, bias: zero, result: weights });
      softenRows(rows, length, wide, scale);
      this.#space.multiply({ left: weights, rows: length, panels: values, bias: zero, result: mixed });
      for (let row = 0; row < length; row++) {
        output.set(results.subarray(row * headWidth, (row + 1) * headWidth), row * width + at);
      }
    }
  }

  #pool(texts: readonly (readonly number[])[], starts: readonly number[]): Float32Array[] {
    const { stream, normal, wide } = this.#buffers;
    const states = this.#space.view(stream, MOST_ROWS * MODEL_WIDTH);
    const means = this.#space.view(normal, texts.length * MODEL_WIDTH);
    means.fill(0);
    texts.forEach((text, index) => {
      const from = starts[index]! * MODEL_WIDTH;
      for (let offset = 0; offset < text.length * MODEL_WIDTH; offset++) {
        const at = index * MODEL_WIDTH + (offset % MODEL_WIDTH);
        means[at]! += states[from + offset]! / text.length;
      }
    });
    this.#apply(this.#final, { left: normal, result: wide, rows: texts.length });
    return texts.map((_, index) => {
      const vector = this.#space.view(wide + index * VECTOR_LENGTH * 4, VECTOR_LENGTH).map(Math.tanh);
      const length = Math.max(1e-6, Math.sqrt(vector.reduce((sum, value) => sum + value * value, 0)));
      return vector.map((value) => value / length);
    });
  }
}
