import { applyAct, type BotAct } from '../src/core/bot/acts/index.js';
import type { BotDocument } from '../src/core/bot/document.js';

/** Gives ids that say in which order they were given. */
export function countingIds(): () => string {
  let count = 0;
  return () => `new${++count}`;
}

/** Does one act upon a document. */
export const act = (document: BotDocument, one: BotAct) => applyAct(document, one, { newId: countingIds() });
