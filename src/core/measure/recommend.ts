import type { GateCosts } from '../bot/document.js';
import { decide, isReadBack, ownLevel, type Gate } from '../recognise/gate.js';
import { consequenceOf, costOf, type GatedMessage } from './levels.js';
import { bootstrapMean, type FigureInterval } from './significance.js';

/** What a message costs by a gate. */
const costBy = (message: GatedMessage, gate: Gate, costs: GateCosts): number =>
  costOf(consequenceOf(message, gate), costs);

/** What a message costs on the mean; 0 of none. */
export function meanCost(messages: readonly GatedMessage[], gate: Gate, costs: GateCosts): number {
  let sum = 0;
  for (const message of messages) sum += costBy(message, gate, costs);
  return messages.length === 0 ? 0 : sum / messages.length;
}

/** The levels that are tried; finer ones would fit the messages and not the customers. */
export const LEVELS: readonly number[] = Array.from({ length: 51 }, (_, at) => at / 50);
/** Higher than any confidence: nothing is accepted. */
const NEVER = 2;

/** A message, and how much it counts. */
export interface WeighedMessage {
  message: GatedMessage;
  weight: number;
}

/**
 * What messages cost in all by every pair of levels: `table[ask][accept]`, places in {@link LEVELS}. Each message is
 * gated once for each ask level.
 * @param gate whose lead and care hold; whose levels do not matter
 */
export function costTable(messages: readonly WeighedMessage[], gate: Gate, costs: GateCosts): Float64Array[] {
  const always = levelled(gate, { accept: 0, ask: 0 });
  // Up to which accept level a message is accepted, and what that costs.
  const acceptedTo = messages.map(({ message: { top } }) => {
    const [best] = top;
    if (!best || decide(top, always).decision !== 'accept') return -1;
    let last = LEVELS.length - 1;
    while (LEVELS[last]! > best.confidence) last--;
    return last;
  });
  const whenAccepted = messages.map(({ message }) => costBy(message, always, costs));
  return LEVELS.map((ask) => {
    const never = levelled(gate, { accept: NEVER, ask });
    /** What is saved by accepting those that are accepted up to a level alone. */
    const change = new Float64Array(LEVELS.length);
    let unaccepted = 0;
    messages.forEach(({ message, weight }, at) => {
      const otherwise = costBy(message, never, costs);
      unaccepted += weight * otherwise;
      if (acceptedTo[at]! >= 0) change[acceptedTo[at]!]! += weight * (whenAccepted[at]! - otherwise);
    });
    const row = new Float64Array(LEVELS.length);
    let sum = unaccepted;
    for (let accept = LEVELS.length - 1; accept >= 0; accept--) {
      sum += change[accept]!;
      row[accept] = sum;
    }
    return row;
  });
}

/** A gate with other levels, the same for all intents. */
const levelled = (gate: Gate, levels: { accept: number; ask: number }): Gate => ({
  ...gate,
  ...levels,
  acceptForms: levels.accept,
});

/**
 * What the confidences say of messages, whatever was expected of them: each is its first intent as likely as the bot is
 * sure, and so on, and out of scope for the rest.
 */
const asConfidencesSay = (messages: readonly GatedMessage[]): WeighedMessage[] =>
  messages.flatMap(({ top }) => [
    ...top.map(({ intent, confidence }) => ({ message: { expected: intent, top }, weight: confidence })),
    { message: { expected: null, top }, weight: Math.max(0, 1 - top.reduce((sum, one) => sum + one.confidence, 0)) },
  ]);

/** A gate that costs less, and how much less. */
export interface Recommendation {
  gate: Gate;
  /** What a message costs on the mean as the gate is, and by the recommended one. */
  now: number;
  then: number;
  /** What it saves a message, with the bounds between which that may well lie; `null` of no messages. */
  saving: FigureInterval | null;
}

/** Levels as cheap as the cheapest within this share of it are as good: those nearest to the ones that stand are taken. */
const AS_GOOD = 0.01;

/** Every setting of the levels, as places in {@link LEVELS}, with what it costs; the ask level is not above the others. */
function* settings(
  usual: readonly Float64Array[],
  forms: readonly Float64Array[] | null,
  own: readonly number[],
): Generator<{ ask: number; accept: number; acceptForms: number; cost: number }> {
  for (let ask = 0; ask < LEVELS.length; ask++) {
    for (let accept = Math.max(1, ask); accept < LEVELS.length; accept++) {
      const cost = usual[ask]![accept]! + own[ask]!;
      if (!forms) yield { ask, accept, acceptForms: accept, cost };
      else
        for (let acceptForms = Math.max(1, ask); acceptForms < LEVELS.length; acceptForms++)
          yield { ask, accept, acceptForms, cost: cost + forms[ask]![acceptForms]! };
    }
  }
}

/**
 * The levels that cost least on some messages: every ask and accept level is tried, and for a bot with forms that are read
 * back every accept level of these. Intents with levels of their own keep them. What became of the messages counts half,
 * and half what their confidences say: few messages go wrong, so that these alone would fit the levels to one or two of
 * them.
 * @param messages none of which the bot was taught
 * @param gate as it stands; its lead is left
 * @param seed of the draws that tell how sure the saving is
 */
export function recommendGate(
  messages: readonly GatedMessage[],
  gate: Gate,
  { costs, seed }: { costs: GateCosts; seed: number },
): Recommendation {
  const now = meanCost(messages, gate, costs);
  const all = [...messages.map((message) => ({ message, weight: 1 })), ...asConfidencesSay(messages)];
  const firstOf = ({ message }: WeighedMessage) => message.top[0]?.intent ?? '';
  const own = all.filter((one) => ownLevel(firstOf(one), gate) !== undefined);
  const rest = all.filter((one) => ownLevel(firstOf(one), gate) === undefined);
  const forms = rest.filter((one) => isReadBack(firstOf(one), gate));
  const tables = [
    costTable(
      rest.filter((one) => !isReadBack(firstOf(one), gate)),
      gate,
      costs,
    ),
    forms.length > 0 ? costTable(forms, gate, costs) : null,
    LEVELS.map((ask) =>
      own.reduce((sum, { message, weight }) => sum + weight * costBy(message, { ...gate, ask }, costs), 0),
    ),
  ] as const;
  let least = Infinity;
  for (const { cost } of settings(...tables)) least = Math.min(least, cost);
  const standing = gate.acceptForms ?? gate.accept;
  let found: { away: number; cost: number; gate: Gate } | null = null;
  for (const { cost, ...at } of settings(...tables)) {
    if (cost > least * (1 + AS_GOOD)) continue;
    const [ask, accept, acceptForms] = [LEVELS[at.ask]!, LEVELS[at.accept]!, LEVELS[at.acceptForms]!];
    const away =
      Math.abs(accept - gate.accept) +
      Math.abs(ask - gate.ask) +
      (forms.length > 0 ? Math.abs(acceptForms - standing) : 0);
    if (found && (found.away < away || (found.away === away && found.cost <= cost))) continue;
    found = { away, cost, gate: { ...gate, ask, accept, ...(forms.length > 0 && { acceptForms }) } };
  }
  const best = messages.length > 0 && found && meanCost(messages, found.gate, costs) < now ? found.gate : gate;
  const savings = messages.map((message) => costBy(message, gate, costs) - costBy(message, best, costs));
  return { gate: best, now, then: meanCost(messages, best, costs), saving: bootstrapMean(savings, seed) };
}
