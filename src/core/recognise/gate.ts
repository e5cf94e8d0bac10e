import { clarifyOf, formOfIntent, type BotDocument, type GateSettings } from '../bot/document.js';
import type { RankedIntent } from './intentModel.js';
import { heldBy, heldOf, type Named } from '../text/named.js';

/** What the gate lets through: acted on, asked about, or not matched. */
export type Decision = 'accept' | 'ask' | 'none';

/** How carefully one intent is acted on. */
export interface IntentCare {
  /** Whether it opens a form that is read back before anything is done, so that a mistake costs a question. */
  readBack: boolean;
  /** Its own accept level, where it has one. */
  accept?: number;
}

/** The gate of a bot, with the care that its intents need; an intent that is not named needs the usual one. */
export interface Gate extends GateSettings {
  care?: Named<IntentCare>;
}

export interface GateResult {
  decision: Decision;
  /** The intents in reach when the decision is to ask: two or three, or one that is merely unsure. */
  candidates: string[];
}

/** So many of the first intents are kept of a reading; no gate asks about more. */
export const MOST_CANDIDATES = 5;
/** Levels are decimal fractions, which sums and differences miss by a hair. */
const HAIR = 1e-9;

/** The gate of a bot: how carefully an intent is acted on follows from what it does, unless it has a level of its own. */
export function gateOf(document: BotDocument): Gate {
  const care = document.intents.flatMap(({ name, accept }) => {
    const readBack = formOfIntent(document, name)?.confirm !== undefined;
    return readBack || accept !== undefined
      ? [[name, { readBack, ...(accept !== undefined && { accept }) }] as const]
      : [];
  });
  return { ...document.gate, care: heldBy(care) };
}

/** Whether an intent opens a form that is read back. */
export const isReadBack = (intent: string, { care }: Gate): boolean => heldOf(care ?? {}, intent)?.readBack ?? false;

/** The accept level that an intent has of its own. */
export const ownLevel = (intent: string, { care }: Gate): number | undefined => heldOf(care ?? {}, intent)?.accept;

/** The least confidence at which an intent is acted on. */
export const acceptLevel = (intent: string, gate: Gate): number =>
  ownLevel(intent, gate) ?? (isReadBack(intent, gate) ? (gate.acceptForms ?? gate.accept) : gate.accept);

/**
 * Decides what becomes of a ranking: accepted if the best intent reaches its accept level and leads the next by the
 * lead; else asked about if it reaches the ask level; else not matched.
 * @param ranking best first
 */
export function decide(ranking: readonly RankedIntent[], gate: Gate): GateResult {
  const [best, next] = ranking;
  if (!best || best.confidence < gate.ask) return { decision: 'none', candidates: [] };
  const lead = best.confidence - (next?.confidence ?? 0);
  if (best.confidence >= acceptLevel(best.intent, gate) && lead >= gate.lead - HAIR)
    return { decision: 'accept', candidates: [best.intent] };
  const reach = Math.min(gate.ask, best.confidence) / 2;
  const candidates = ranking
    .slice(0, clarifyOf(gate).most)
    .filter((item) => item.confidence >= reach)
    .map((item) => item.intent);
  return { decision: 'ask', candidates };
}
