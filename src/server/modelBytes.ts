import { deserialize, serialize } from 'node:v8';
import { MODEL_VERSION } from '../core/recognise/intentModel.js';
import type { RecogniserModel } from '../core/recognise/recogniser.js';

/** A model as it is stored and handed from thread to thread. */
export function modelToBytes(model: RecogniserModel): Uint8Array<ArrayBuffer> {
  return new Uint8Array(serialize(model));
}

/** @returns `null` where the bytes are no model of this version */
export function modelFromBytes(bytes: Uint8Array): RecogniserModel | null {
  let value: unknown;
  try {
    value = deserialize(bytes);
  } catch {
    // Bytes of another Node version, or damaged: the bot trains a new model.
    return null;
  }
  return (value as Partial<RecogniserModel> | null)?.version === MODEL_VERSION ? (value as RecogniserModel) : null;
}
