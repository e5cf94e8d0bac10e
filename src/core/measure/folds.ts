import type { BotDocument, Utterance } from '../bot/document.js';
import type { TestLine } from '../formats/testFile.js';
import { seeded } from './significance.js';

/** A bot taught with a part of its utterances, and the lines that tell how it does. */
export interface TaughtInPart {
  document: BotDocument;
  lines: TestLine[];
}

/** In an order of its own for each seed (Fisher and Yates). */
function shuffled<Item>(items: readonly Item[], random: () => number): Item[] {
  const order = [...items];
  for (let last = order.length - 1; last > 0; last--) {
    const other = Math.floor(random() * (last + 1));
    [order[last], order[other]] = [order[other]!, order[last]!];
  }
  return order;
}

/** The utterances of each intent, in an order of the seed. */
function ordered(document: BotDocument, seed: number): Map<string, Utterance[]> {
  const random = seeded(seed);
  return new Map(document.intents.map(({ name, utterances }) => [name, shuffled(utterances, random)]));
}

const withUtterances = (document: BotDocument, of: (intent: string) => readonly Utterance[]): BotDocument => ({
  ...document,
  intents: document.intents.map((intent) => {
    const wanted = new Set(of(intent.name));
    return { ...intent, utterances: intent.utterances.filter((utterance) => wanted.has(utterance)) };
  }),
});

/**
 * Divides the utterances of a bot into folds, each intent spread over them evenly; for each fold, the bot without it.
 * Intents begin at different folds, so that small ones do not all come to lie in the first.
 * @param count of folds, 2 or more
 */
export function foldsOf(document: BotDocument, count: number, seed: number): TaughtInPart[] {
  const order = ordered(document, seed);
  const foldOf = new Map<Utterance, number>();
  document.intents.forEach(({ name }, at) =>
    order.get(name)!.forEach((utterance, place) => foldOf.set(utterance, (place + at) % count)),
  );
  return Array.from({ length: count }, (_, fold) => ({
    document: withUtterances(document, (intent) => order.get(intent)!.filter((one) => foldOf.get(one) !== fold)),
    lines: document.intents.flatMap(({ name, utterances }) =>
      utterances.filter((one) => foldOf.get(one) === fold).map(({ text }) => ({ text, intent: name })),
    ),
  }));
}

/** A bot with a share of the utterances of each intent, one at least; a smaller share is a part of every greater one. */
export function withShare(document: BotDocument, share: number, seed: number): BotDocument {
  const order = ordered(document, seed);
  return withUtterances(document, (intent) => {
    const all = order.get(intent)!;
    return all.slice(0, Math.max(1, Math.round(all.length * share)));
  });
}
