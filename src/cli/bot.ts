import type { BotDocument } from '../core/bot/document.js';
import { ENCODER_LANGUAGES, encodeTexts } from '../core/encode/encoder.js';
import { openRecogniser, textsForTraining, trainRecogniser, type Recogniser } from '../core/recognise/recogniser.js';
import { encoderFolder, loadEncoder } from '../server/encoder/load.js';

/** A bot trained for a command, with the vectors of the texts it will be asked about. */
export interface ReadyBot {
  recogniser: Recogniser;
  vectorOf: (text: string) => Float32Array | null;
}

/** Trains a bot and encodes texts, all in this process. */
export async function readyBot(document: BotDocument, texts: readonly string[]): Promise<ReadyBot> {
  const encoded = ENCODER_LANGUAGES.includes(document.languages[0] ?? 'en');
  const encoder = encoded ? await loadEncoder(encoderFolder()) : null;
  const byText = encoder
    ? await encodeTexts(encoder, [...textsForTraining(document), ...texts])
    : new Map<string, Float32Array>();
  return {
    recogniser: openRecogniser(document, trainRecogniser(document, byText)),
    vectorOf: (text) => byText.get(text) ?? null,
  };
}
