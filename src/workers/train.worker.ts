import type { BotDocument } from '../core/bot/document.js';
import { trainRecogniser } from '../core/recognise/recogniser.js';
import type { IntentModel } from '../core/recognise/intentModel.js';

/** Trains the model of a bot. */
export default function train({
  document,
  vectors,
}: {
  document: BotDocument;
  vectors: Map<string, Float32Array>;
}): IntentModel {
  return trainRecogniser(document, vectors);
}
