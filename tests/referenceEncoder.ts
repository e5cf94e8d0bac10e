import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { setWasmPaths } from '@tensorflow/tfjs-backend-wasm';
import { loadGraphModel } from '@tensorflow/tfjs-converter';
import { dispose, ready, setBackend, tensor1d, tensor2d, type Tensor } from '@tensorflow/tfjs-core';
import { VECTOR_LENGTH, type Encoder } from '../src/core/encode/encoder.js';
import { PieceSplitter, type Piece } from '../src/core/encode/pieces.js';

/** Where the encoder's files lie on this machine. */
export interface EncoderFiles {
  /** Folder with `model.json`, its weight shards and `vocab.json`. */
  weights: string;
  /** Folder with the WebAssembly kernels, ending in a slash. */
  kernels: string;
}

interface ModelFile {
  modelTopology: object;
  format?: string;
  weightsManifest: { paths: string[]; weights: { name: string; shape: number[]; dtype: 'float32' }[] }[];
}

const BATCH = 64;

async function readModel(folder: string) {
  const model = JSON.parse(await readFile(path.join(folder, 'model.json'), 'utf8')) as ModelFile;
  const shards = await Promise.all(
    model.weightsManifest.flatMap((group) => group.paths).map((name) => readFile(path.join(folder, name))),
  );
  const weights = Buffer.concat(shards);
  return {
    modelTopology: model.modelTopology,
    weightSpecs: model.weightsManifest.flatMap((group) => group.weights),
    weightData: weights.buffer.slice(weights.byteOffset, weights.byteOffset + weights.byteLength),
  };
}

/** The same encoder run by a general-purpose library, slow but independent of ours. */
export async function loadReferenceEncoder(files: EncoderFiles): Promise<Encoder> {
  setWasmPaths(files.kernels);
  await setBackend('wasm');
  await ready();
  const vocabulary = JSON.parse(await readFile(path.join(files.weights, 'vocab.json'), 'utf8')) as Piece[];
  const splitter = new PieceSplitter(vocabulary);
  const artifacts = await readModel(files.weights);
  const model = await loadGraphModel({ load: () => Promise.resolve(artifacts) });

  async function encodeBatch(texts: readonly string[]): Promise<Float32Array[]> {
    const indices: number[] = [];
    const values: number[] = [];
    texts.forEach((text, row) => {
      const pieces = splitter.split(text);
      (pieces.length > 0 ? pieces : [0]).forEach((piece, position) => {
        indices.push(row, position);
        values.push(piece);
      });
    });
    const inputs = { indices: tensor2d(indices, [values.length, 2], 'int32'), values: tensor1d(values, 'int32') };
    const output = (await model.executeAsync(inputs)) as Tensor;
    const data = await output.data<'float32'>();
    dispose([inputs.indices, inputs.values, output]);
    return texts.map((_, row) => data.slice(row * VECTOR_LENGTH, (row + 1) * VECTOR_LENGTH));
  }

  return {
    async encode(texts) {
      const vectors: Float32Array[] = [];
      for (let start = 0; start < texts.length; start += BATCH) {
        vectors.push(...(await encodeBatch(texts.slice(start, start + BATCH))));
      }
      return vectors;
    },
  };
}
