import type { BotDocument } from '../core/bot/document.js';
import { NO_VECTORS } from '../core/encode/encoder.js';
import { encodeWith, teach, type Encode } from '../core/recognise/answer.js';
import { openRecogniser, type Recogniser } from '../core/recognise/open.js';
import { isEncoded } from '../core/recognise/reading.js';
import { encoderFolder } from '../server/encoder/files.js';
import { loadEncoder } from '../server/encoder/load.js';

/** A bot trained for a command. */
export interface ReadyBot {
  recogniser: Recogniser;
  encode: Encode;
}

/** Trains a bot in this process. */
export async function readyBot(document: BotDocument): Promise<ReadyBot> {
  const encode: Encode = isEncoded(document)
    ? encodeWith(await loadEncoder(encoderFolder()))
    : () => Promise.resolve(NO_VECTORS);
  return { recogniser: openRecogniser(document, await teach(document, encode)), encode };
}
