import type { BotDocument } from '../core/bot/document.js';
import { textsForTraining, trainRecogniser, TrainingMemory } from '../core/recognise/recogniser.js';
import { modelToBytes } from '../server/modelBytes.js';

/** A bot to be taught, with sentence vectors that the thread asked for. */
export interface TrainTask {
  document: BotDocument;
  vectors: Map<string, Float32Array>;
}

/** The model's bytes, or the texts whose vectors the thread does not have yet. */
export type TrainAnswer = { bytes: Uint8Array } | { missing: string[] };

/** The most vectors kept from one training to the next. */
const MOST_KEPT = 60_000;

const memory = new TrainingMemory();
const kept = new Map<string, Float32Array>();

/** Trains the model of a bot. Texts and vectors are kept for the next time, since an edit changes few of them. */
export default function train({ document, vectors }: TrainTask): TrainAnswer {
  if (kept.size > MOST_KEPT) kept.clear();
  for (const [text, vector] of vectors) kept.set(text, vector);
  const missing = textsForTraining(document).filter((text) => !kept.has(text));
  if (missing.length > 0) return { missing };
  return { bytes: modelToBytes(trainRecogniser(document, kept, memory)) };
}
