import type { RowId } from '$core/bot/document.js';
import { readMarking, writeMarking } from '$core/bot/marking.js';
import type { UtteranceLine } from '$core/contract/teach.js';

/** An utterance as the server will have it: on one line, its marking in one form. */
export function lineOf(id: RowId, written: string): UtteranceLine {
  const marked = readMarking(written.replace(/\s+/gu, ' ').trim());
  return { id, source: writeMarking(marked), ...marked, heldOut: null };
}
