import type { Vectors } from '../encode/encoder.js';

/** A text with the intent it teaches. */
interface Taught {
  /** As the encoder reads it. */
  text: string;
  intent: string;
}

/** A text that nobody wrote: a vector alone. Its `text` names it. */
export interface Imagined extends Taught {
  vector: Float32Array;
}

/** An intent with fewer utterances is helped. */
export const FEW_UTTERANCES = 4;
/** Imagined texts of an intent, and of all intents together, at most. */
const MOST_OF_INTENT = 40;
const MOST = 240;
/** How far the imagined texts of an intent lie apart, beside what utterances of other intents do. */
const SPREAD = 1;

/** A text moved by what tells two others apart, of length one. */
function moved(base: Float32Array, from: Float32Array, to: Float32Array): Float32Array {
  const vector = base.map((value, at) => value + SPREAD * (to[at]! - from[at]!));
  const length = Math.hypot(...vector);
  return vector.map((value) => value / length);
}

/**
 * Vectors for intents that have few utterances or none: what is known of such an intent, moved by the differences
 * between two utterances of another (transfer by analogy; Hariharan and Girshick, 2017). One text alone is a point that
 * no message comes near to; these spread around it as utterances do.
 * @param known texts of the intents to be helped: descriptions, names, utterances
 * @param others utterances of the other intents
 */
export function imagine(known: readonly Taught[], others: readonly Taught[], vectors: Vectors): Imagined[] {
  const helped = [...new Set(known.map(({ intent }) => intent))];
  const byIntent = new Map<string, string[]>();
  for (const { text, intent } of others) byIntent.set(intent, [...(byIntent.get(intent) ?? []), text]);
  const pools = [...byIntent.values()].filter((texts) => texts.length > 1);
  if (pools.length === 0) return [];
  const count = Math.min(MOST_OF_INTENT, Math.floor(MOST / Math.max(1, helped.length)));
  return helped.flatMap((intent) => {
    const bases = known.filter((text) => text.intent === intent).map(({ text }) => text);
    return Array.from({ length: count }, (_, index): Imagined => {
      const pool = pools[index % pools.length]!;
      const round = Math.floor(index / pools.length);
      const apart = 1 + (Math.floor(round / pool.length) % (pool.length - 1));
      const [from, to] = [pool[round % pool.length]!, pool[(round + apart) % pool.length]!];
      const base = bases[index % bases.length]!;
      const vector = moved(vectors.get(base)!, vectors.get(from)!, vectors.get(to)!);
      return { intent, text: ['imagined', base, from, to].join('\n'), vector };
    });
  });
}

/** Vectors of some texts, and those of imagined ones. */
export function withImagined(texts: readonly string[], imagined: readonly Imagined[], vectors: Vectors): Vectors {
  const own = new Map<string, Float32Array>();
  for (const text of texts) {
    const vector = vectors.get(text);
    if (vector) own.set(text, vector);
  }
  for (const { text, vector } of imagined) own.set(text, vector);
  return own;
}
