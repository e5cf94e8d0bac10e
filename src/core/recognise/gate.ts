import type { GateSettings } from '../bot/document.js';
import type { RankedIntent } from './intentModel.js';

/** What the gate lets through: acted on, asked about, or not matched. */
export type Decision = 'accept' | 'ask' | 'none';

export interface GateResult {
  decision: Decision;
  /** The intents in reach when the decision is to ask: two or three, or one that is merely unsure. */
  candidates: string[];
}

/** So many intents are offered at most. */
export const MOST_CANDIDATES = 3;
/** Levels are decimal fractions, which sums and differences miss by a hair. */
const HAIR = 1e-9;

/**
 * Decides what becomes of a ranking: accepted if the best intent reaches the accept level and leads the next by the
 * lead; else asked about if it reaches the ask level; else not matched.
 * @param ranking best first
 */
export function decide(ranking: readonly RankedIntent[], gate: GateSettings): GateResult {
  const [best, next] = ranking;
  if (!best || best.confidence < gate.ask) return { decision: 'none', candidates: [] };
  const lead = best.confidence - (next?.confidence ?? 0);
  if (best.confidence >= gate.accept && lead >= gate.lead - HAIR)
    return { decision: 'accept', candidates: [best.intent] };
  const reach = Math.min(gate.ask, best.confidence) / 2;
  const candidates = ranking
    .slice(0, MOST_CANDIDATES)
    .filter((item) => item.confidence >= reach)
    .map((item) => item.intent);
  return { decision: 'ask', candidates };
}
