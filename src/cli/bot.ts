import type { BotDocument } from '../core/bot/document.js';
import { encodeTexts, NO_VECTORS, type Vectors } from '../core/encode/encoder.js';
import { openRecogniser, textsForTraining, trainRecogniser, type Recogniser } from '../core/recognise/recogniser.js';
import { encoderFolder, loadEncoder } from '../server/encoder/load.js';

/** A bot trained for a command, with the vectors of the texts it will be asked about. */
export interface ReadyBot {
  recogniser: Recogniser;
  vectors: Vectors;
}

/**
 * Trains a bot and encodes texts, all in this process.
 * @param textsOf the texts whose vectors each of them needs; those of reading it alone where it is left out
 */
export async function readyBot(
  document: BotDocument,
  texts: readonly string[],
  textsOf: (recogniser: Recogniser, text: string) => string[] = (recogniser, text) => recogniser.textsToEncode(text),
): Promise<ReadyBot> {
  const training = textsForTraining(document);
  const encoder = training.length > 0 ? await loadEncoder(encoderFolder()) : null;
  const taught = encoder ? await encodeTexts(encoder, training) : NO_VECTORS;
  const recogniser = openRecogniser(document, trainRecogniser(document, taught));
  const asked = texts.flatMap((text) => textsOf(recogniser, text));
  return { recogniser, vectors: encoder ? await encodeTexts(encoder, asked) : NO_VECTORS };
}
