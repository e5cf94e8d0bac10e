import type { GateSettings } from '../bot/document.js';
import { consequenceOf, costOf, type GateCosts, type GatedMessage } from './levels.js';
import { bootstrapMean, type FigureInterval } from './significance.js';

/** A gate that costs less, and how much less. */
export interface Recommendation {
  gate: GateSettings;
  /** What a message costs on the mean as the gate is, and by the recommended one. */
  now: number;
  then: number;
  /** What it saves a message, with the bounds between which that may well lie; `null` of no messages. */
  saving: FigureInterval | null;
}

/** What a message costs on the mean; 0 of none. */
export function meanCost(messages: readonly GatedMessage[], gate: GateSettings, costs: GateCosts): number {
  let sum = 0;
  for (const message of messages) sum += costOf(consequenceOf(message, gate), costs);
  return messages.length === 0 ? 0 : sum / messages.length;
}

/** Levels lie this far apart where the best are looked for; finer ones would fit the messages and not the customers. */
const STEP = 0.02;
const STEPS = Math.round(1 / STEP);
/** Levels as cheap as the cheapest within this share of it are as good: the one nearest to the level that stands is taken. */
const AS_GOOD = 0.01;

const round = (level: number): number => Math.round(level * 100) / 100;

/**
 * The levels that cost least on some messages: every pair of levels is tried, the ask level below the accept level.
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
  const tried: { gate: GateSettings; cost: number }[] = [];
  for (let accept = 1; accept <= STEPS; accept++) {
    for (let ask = 0; ask <= accept; ask++) {
      const own = { ...gate, accept: round(accept * STEP), ask: round(ask * STEP) };
      tried.push({ gate: own, cost: meanCost(messages, own, costs) });
    }
  }
  const least = Math.min(now, ...tried.map(({ cost }) => cost));
  const good = tried.filter(({ cost }) => cost <= least * (1 + AS_GOOD));
  const away = (other: GateSettings) => Math.abs(other.accept - gate.accept) + Math.abs(other.ask - gate.ask);
  good.sort((a, b) => away(a.gate) - away(b.gate) || a.cost - b.cost);
  const best = now <= least ? gate : (good[0]?.gate ?? gate);
  const savings = messages.map(
    (message) => costOf(consequenceOf(message, gate), costs) - costOf(consequenceOf(message, best), costs),
  );
  return { gate: best, now, then: meanCost(messages, best, costs), saving: bootstrapMean(savings, seed) };
}
