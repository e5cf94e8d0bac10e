import type { BotDocument } from '../../core/bot/document.js';
import type { Answering } from '../answering/answering.js';
import type { SharedModel } from '../answering/tasks.js';
import type { EncodingService } from './encoding.js';

/** Models that no bot keeps get names that no other has. */
let next = 1;

/**
 * Teaches a bot as it is not now, with the work in bulk: a part of it, or as it was once.
 * @param slots whether it learns to find slots too, or knows intents alone
 * @param check throws where it is no longer wanted
 */
export async function teachAside(
  { answering, encoding }: { answering: Answering; encoding: EncodingService },
  { document, slots }: { document: BotDocument; slots: boolean },
  check: () => void,
): Promise<SharedModel> {
  const key = `aside ${next++}`;
  const texts = await answering.run('bulk', 'textsToTeach', { document, key, slots });
  const vectors = await encoding.vectorsOf(texts, { progress: check });
  return answering.run('bulk', 'teach', { document, key, slots, vectors });
}
