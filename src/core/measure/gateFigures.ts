import type { GateCosts } from '../bot/document.js';
import { decide, type Gate } from '../recognise/gate.js';
import { countConsequences, type Consequences, type GatedMessage } from './levels.js';
import { LEVELS, meanCost } from './recommend.js';
import { heldBy, type Named } from '../text/named.js';

/** How many messages lie in each stretch of confidence, by whether their first intent is right. */
export interface ConfidenceHistogram {
  right: number[];
  wrong: number[];
  /** Out of scope, whatever they are read as. */
  outside: number[];
}

const confidenceOf = ({ top }: GatedMessage): number => top[0]?.confidence ?? 0;

/** @param bins equal stretches from 0 to 1; the last holds 1 */
export function confidenceHistogram(messages: readonly GatedMessage[], bins: number): ConfidenceHistogram {
  const empty = () => Array.from({ length: bins }, () => 0);
  const histogram = { right: empty(), wrong: empty(), outside: empty() };
  for (const message of messages) {
    const bin = Math.min(bins - 1, Math.floor(confidenceOf(message) * bins));
    const kind =
      message.expected === null ? 'outside' : message.top[0]?.intent === message.expected ? 'right' : 'wrong';
    histogram[kind][bin]!++;
  }
  return histogram;
}

/** What a gate makes of the messages whose first intent is this one. */
export interface IntentGateFigures {
  accepted: number;
  /** Of the accepted, those that ask for something else or are out of scope. */
  wrong: number;
  asked: number;
  /** Not matched. */
  missed: number;
}

function intentFigures(messages: readonly GatedMessage[], gate: Gate): Named<IntentGateFigures> {
  const figures = new Map<string, IntentGateFigures>();
  for (const { expected, top } of messages) {
    const [first] = top;
    if (!first) continue;
    const own = figures.get(first.intent) ?? { accepted: 0, wrong: 0, asked: 0, missed: 0 };
    figures.set(first.intent, own);
    const { decision } = decide(top, gate);
    if (decision === 'ask') own.asked++;
    else if (decision === 'none') own.missed++;
    else {
      own.accepted++;
      if (first.intent !== expected) own.wrong++;
    }
  }
  return heldBy(figures);
}

/** What a gate comes to on some messages. */
export interface GateFigures {
  messages: number;
  consequences: Consequences;
  /** By the first intent of a message; an intent that is the first of none is left out. */
  intents: Named<IntentGateFigures>;
  /** Of a message, on the mean. */
  cost: number;
  /** Places of the messages nearest to the two borders, the nearest first. */
  nearest: Record<'accept' | 'ask', number[]>;
}

/** Messages shown beside each border. */
const NEAREST = 6;

function nearestTo(messages: readonly GatedMessage[], level: number): number[] {
  const best: { at: number; away: number }[] = [];
  messages.forEach((message, at) => {
    const away = Math.abs(confidenceOf(message) - level);
    if (best.length === NEAREST && away >= best.at(-1)!.away) return;
    const place = best.findIndex((other) => other.away > away);
    best.splice(place < 0 ? best.length : place, 0, { at, away });
    if (best.length > NEAREST) best.pop();
  });
  return best.map(({ at }) => at);
}

/** What a gate comes to: once through the messages, so that it can be told anew at each move of a level. */
export function gateFigures(messages: readonly GatedMessage[], gate: Gate, costs: GateCosts): GateFigures {
  return {
    messages: messages.length,
    consequences: countConsequences(messages, gate),
    intents: intentFigures(messages, gate),
    cost: meanCost(messages, gate, costs),
    nearest: { accept: nearestTo(messages, gate.accept), ask: nearestTo(messages, gate.ask) },
  };
}

/** What a message costs on the mean by the accept level, the ask level as it is or as high at most. */
export const costCurve = (
  messages: readonly GatedMessage[],
  gate: Gate,
  costs: GateCosts,
): { level: number; cost: number }[] =>
  LEVELS.map((level) => ({
    level,
    cost: meanCost(messages, { ...gate, accept: level, ask: Math.min(gate.ask, level) }, costs),
  }));
