import type { GateCosts } from '../bot/document.js';
import { decide, isReadBack, type Decision, type Gate } from '../recognise/gate.js';
import type { RankedIntent } from '../recognise/intentModel.js';
import { isCounted, type LineResult } from './evaluate.js';

/** A message as the gate sees it, so little that tens of thousands can be gated anew while a level is moved. */
export interface GatedMessage {
  /** `null`: out of scope. */
  expected: string | null;
  /** The first intents of the ranking, the best first; more than the gate asks about are of no matter. */
  top: readonly RankedIntent[];
}

/** The lines of a run that count, as the gate sees them. */
export const gatedMessages = (results: readonly LineResult[]): GatedMessage[] =>
  results.filter(isCounted).map(({ expected = null, predicted, confidence, top }) => ({
    expected,
    top: top ?? (predicted === null ? [] : [{ intent: predicted, confidence }]),
  }));

/** What a gate makes of a message, and whether that serves the customer. */
export type Consequence =
  | 'accepted rightly'
  | 'accepted wrongly'
  | 'accepted out of scope'
  | 'form opened wrongly'
  | 'form opened out of scope'
  | 'asked, right one offered'
  | 'asked, right one not offered'
  | 'asked out of scope'
  | 'missed'
  | 'left out of scope';

const OF_NONE: Readonly<Record<Decision, Consequence>> = {
  accept: 'accepted out of scope',
  ask: 'asked out of scope',
  none: 'left out of scope',
};

/** What a gate makes of a message. A form that is read back is told apart: a mistake is found before anything is done. */
export function consequenceOf({ expected, top }: GatedMessage, gate: Gate): Consequence {
  const { decision, candidates } = decide(top, gate);
  const opened = decision === 'accept' && isReadBack(top[0]!.intent, gate);
  if (expected === null) return opened ? 'form opened out of scope' : OF_NONE[decision];
  if (decision === 'none') return 'missed';
  const holds = candidates.includes(expected);
  if (decision === 'accept') return holds ? 'accepted rightly' : opened ? 'form opened wrongly' : 'accepted wrongly';
  return holds ? 'asked, right one offered' : 'asked, right one not offered';
}

/** How many messages a gate makes what of. */
export type Consequences = Record<Consequence, number>;

export function countConsequences(messages: readonly GatedMessage[], gate: Gate): Consequences {
  const counts: Consequences = {
    'accepted rightly': 0,
    'accepted wrongly': 0,
    'accepted out of scope': 0,
    'form opened wrongly': 0,
    'form opened out of scope': 0,
    'asked, right one offered': 0,
    'asked, right one not offered': 0,
    'asked out of scope': 0,
    missed: 0,
    'left out of scope': 0,
  };
  for (const message of messages) counts[consequenceOf(message, gate)]++;
  return counts;
}

/** What accepting from a level on comes to. */
export interface ThresholdPoint {
  level: number;
  /** Of the messages in scope, the share whose first intent reaches it. */
  accepted: number;
  /** Of all messages that reach it, the share that is right; `null` where none does. */
  right: number | null;
  /** Of the messages out of scope, the share that stays below it. */
  keptOut: number | null;
}

const STEPS = 50;

/** What each level comes to, were every message accepted from it on, whatever leads. */
export function thresholdCurve(messages: readonly GatedMessage[]): ThresholdPoint[] {
  const told = messages.map(({ expected, top: [first] }) => ({
    outside: expected === null,
    right: first !== undefined && first.intent === expected,
    confidence: first?.confidence ?? 0,
  }));
  const [outside, inside] = [told.filter((one) => one.outside), told.filter((one) => !one.outside)];
  const share = (some: readonly unknown[], all: readonly unknown[]) =>
    all.length === 0 ? null : some.length / all.length;
  return Array.from({ length: STEPS + 1 }, (_, at) => {
    const level = at / STEPS;
    const reach = told.filter(({ confidence }) => confidence >= level);
    return {
      level,
      accepted:
        share(
          reach.filter((one) => !one.outside),
          inside,
        ) ?? 0,
      right: share(
        reach.filter(({ right }) => right),
        reach,
      ),
      keptOut: share(
        outside.filter(({ confidence }) => confidence < level),
        outside,
      ),
    };
  });
}

/** What a consequence costs. A question that does not offer the right intent costs the request as well. */
export function costOf(consequence: Consequence, costs: GateCosts): number {
  switch (consequence) {
    case 'accepted wrongly':
      return costs.wrongAct;
    case 'accepted out of scope':
      return costs.outsideAct;
    case 'form opened wrongly':
    case 'form opened out of scope':
      return costs.wrongForm;
    case 'asked, right one offered':
    case 'asked out of scope':
      return costs.question;
    case 'asked, right one not offered':
      return costs.question + costs.missed;
    case 'missed':
      return costs.missed;
    case 'accepted rightly':
    case 'left out of scope':
      return 0;
  }
}
