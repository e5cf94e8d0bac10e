import type { DayContext, DayRead, ReckonedFrom } from '../../../language/dayReader.js';
import type { Word } from '../../../language/word.js';
import { exists } from './calendar.js';

/** Nobody reckons a day from more days than this. */
const DEEPEST = 2;
/** The day or stretch of days that the words at a place name; `null` where they name none. */
export function readDay(words: readonly Word[], at: number, context: ReckonedFrom): DayRead | null {
  const depth = context.depth ?? 0;
  if (depth > DEEPEST) return null;
  const place = at * (DEEPEST + 1) + depth;
  const known = context.known?.get(place);
  if (known !== undefined) return known;
  const within: DayContext = { ...context, depth: depth + 1, read: (all, place, from) => readDay(all, place, from) };
  let best: DayRead | null = null;
  for (const read of context.readers) {
    const found = read(words, at, within);
    if (found && found.next > (best?.next ?? at) && exists(found.from) && exists(found.to)) best = found;
  }
  context.known?.set(place, best);
  return best;
}
