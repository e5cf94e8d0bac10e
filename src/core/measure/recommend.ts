import type { GateCosts, GateSettings } from '../bot/document.js';
import { consequenceOf, costOf, type GatedMessage } from './levels.js';
import { bootstrapMean, type FigureInterval } from './significance.js';

/** What a message costs on the mean; 0 of none. */
export function meanCost(messages: readonly GatedMessage[], gate: GateSettings, costs: GateCosts): number {
  let sum = 0;
  for (const message of messages) sum += costOf(consequenceOf(message, gate), costs);
  return messages.length === 0 ? 0 : sum / messages.length;
}

/** The levels that are tried; finer ones would fit the messages and not the customers. */
export const LEVELS: readonly number[] = Array.from({ length: 51 }, (_, at) => at / 50);
/** Higher than any confidence: nothing is accepted. */
const NEVER = 2;

/**
 * What a message costs on the mean by every pair of levels: `table[ask][accept]`, places in {@link LEVELS}. Each message
 * is gated once for each ask level.
 * @param weights how much each message counts; all the same without
 */
export function costTable(
  messages: readonly GatedMessage[],
  lead: number,
  costs: GateCosts,
  weights: readonly number[] = messages.map(() => 1),
): Float64Array[] {
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  // Up to which accept level a message is accepted, and what that costs.
  const acceptedTo = messages.map(({ top }) => {
    const [best] = top;
    const leads =
      best && consequenceOf({ expected: null, top }, { accept: 0, ask: 0, lead }) === 'accepted out of scope';
    if (!leads) return -1;
    let last = LEVELS.length - 1;
    while (LEVELS[last]! > best.confidence) last--;
    return last;
  });
  const whenAccepted = messages.map((message) => costOf(consequenceOf(message, { accept: 0, ask: 0, lead }), costs));
  return LEVELS.map((ask) => {
    /** What is saved by accepting those that are accepted up to a level alone. */
    const change = new Float64Array(LEVELS.length);
    let unaccepted = 0;
    messages.forEach((message, at) => {
      const otherwise = costOf(consequenceOf(message, { accept: NEVER, ask, lead }), costs);
      unaccepted += weights[at]! * otherwise;
      if (acceptedTo[at]! >= 0) change[acceptedTo[at]!]! += weights[at]! * (whenAccepted[at]! - otherwise);
    });
    const row = new Float64Array(LEVELS.length);
    let sum = unaccepted;
    for (let accept = LEVELS.length - 1; accept >= 0; accept--) {
      sum += change[accept]!;
      row[accept] = whole === 0 ? 0 : sum / whole;
    }
    return row;
  });
}

/**
 * What the confidences say of messages, whatever was expected of them: each is its first intent as likely as the bot is
 * sure, and so on, and out of scope for the rest.
 */
function asConfidencesSay(messages: readonly GatedMessage[]): { messages: GatedMessage[]; weights: number[] } {
  const told = messages.flatMap(({ top }) => [
    ...top.map(({ intent, confidence }) => ({ message: { expected: intent, top }, weight: confidence })),
    { message: { expected: null, top }, weight: Math.max(0, 1 - top.reduce((sum, one) => sum + one.confidence, 0)) },
  ]);
  return { messages: told.map(({ message }) => message), weights: told.map(({ weight }) => weight) };
}

/** A gate that costs less, and how much less. */
export interface Recommendation {
  gate: GateSettings;
  /** What a message costs on the mean as the gate is, and by the recommended one. */
  now: number;
  then: number;
  /** What it saves a message, with the bounds between which that may well lie; `null` of no messages. */
  saving: FigureInterval | null;
}

/** Levels as cheap as the cheapest within this share of it are as good: those nearest to the ones that stand are taken. */
const AS_GOOD = 0.01;

/**
 * The levels that cost least on some messages: every pair is tried, the ask level not above the accept level. What became
 * of the messages counts half, and half what their confidences say: few messages go wrong, so that these alone would fit
 * the levels to one or two of them.
 * @param messages none of which the bot was taught
 * @param gate as it stands; its lead is left
 * @param seed of the draws that tell how sure the saving is
 */
export function recommendGate(
  messages: readonly GatedMessage[],
  gate: GateSettings,
  { costs, seed }: { costs: GateCosts; seed: number },
): Recommendation {
  const now = meanCost(messages, gate, costs);
  const said = asConfidencesSay(messages);
  const table = costTable([...messages, ...said.messages], gate.lead, costs, [
    ...messages.map(() => 1),
    ...said.weights,
  ]);
  const tried = table.flatMap((row, ask) =>
    [...row]
      .map((cost, accept) => ({ gate: { ...gate, ask: LEVELS[ask]!, accept: LEVELS[accept]! }, cost }))
      .slice(Math.max(1, ask)),
  );
  const least = Math.min(...tried.map(({ cost }) => cost));
  const away = (other: GateSettings) => Math.abs(other.accept - gate.accept) + Math.abs(other.ask - gate.ask);
  const good = tried.filter(({ cost }) => cost <= least * (1 + AS_GOOD));
  good.sort((a, b) => away(a.gate) - away(b.gate) || a.cost - b.cost);
  const found = messages.length === 0 ? gate : good[0]!.gate;
  const best = meanCost(messages, found, costs) < now ? found : gate;
  const savings = messages.map(
    (message) => costOf(consequenceOf(message, gate), costs) - costOf(consequenceOf(message, best), costs),
  );
  return { gate: best, now, then: meanCost(messages, best, costs), saving: bootstrapMean(savings, seed) };
}
