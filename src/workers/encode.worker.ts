import { loadEncoder } from '../server/encoder/load.js';
import type { Encoder } from '../core/encode/encoder.js';

let encoder: Promise<Encoder> | null = null;

/** Encodes texts. @param task.folder where the encoder's files lie */
export default async function encode({ folder, texts }: { folder: string; texts: string[] }): Promise<Float32Array[]> {
  encoder ??= loadEncoder(folder);
  return (await encoder).encode(texts);
}
