import type { Encoder } from '../../core/encode/encoder.js';
import { loadEncoder } from './load.js';

/** Texts to be encoded. */
export interface EncodeTask {
  /** Where the encoder's files lie. */
  folder: string;
  texts: string[];
}

let loading: Promise<Encoder> | null = null;

/** Encodes texts: a vector each, in their order. */
export async function encodeIn({ folder, texts }: EncodeTask): Promise<Float32Array[]> {
  loading ??= loadEncoder(folder);
  return (await loading).encode(texts);
}
