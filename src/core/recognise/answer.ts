import type { BotDocument } from '../bot/document.js';
import { encodeTexts, type Encoder, type Vectors } from '../encode/encoder.js';
import type { RecogniserModel } from './model.js';
import type { Recogniser } from './open.js';
import type { Recognition } from './recognition.js';
import { prepareTraining, type TrainingMemory } from './train.js';

/** Gives the vectors of texts. */
export type Encode = (texts: readonly string[]) => Promise<Vectors>;

/** Encodes with an encoder; texts that were asked for before are not encoded again. */
export function encodeWith(encoder: Encoder): Encode {
  const known = new Map<string, Float32Array>();
  return async (texts) => {
    const missing = texts.filter((text) => !known.has(text));
    if (missing.length > 0) for (const [text, vector] of await encodeTexts(encoder, missing)) known.set(text, vector);
    return known;
  };
}

/** Teaches a bot. @param memory what the training before left */
export async function teach(document: BotDocument, encode: Encode, memory?: TrainingMemory): Promise<RecogniserModel> {
  const prepared = prepareTraining(document, memory);
  return prepared.train(await encode(prepared.texts));
}

/** Reads many messages; their texts are encoded together. @param now where a message names no time of its own */
export async function answerAll(
  recogniser: Recogniser,
  messages: readonly { text: string; now?: string }[],
  now: string,
  encode: Encode,
): Promise<Recognition[]> {
  const vectors = await encode(messages.flatMap(({ text }) => recogniser.textsToEncode(text)));
  return messages.map((message) => recogniser.recognise(message.text, vectors, message.now ?? now));
}
