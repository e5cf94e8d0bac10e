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

/** What a gate makes of a message, as a number. */
type Worth = (message: GatedMessage, gate: Gate) => number;

/**
 * What messages come to in all by every pair of levels: `table[ask][accept]`, places in {@link LEVELS}. Each message is
 * gated once for each ask level.
 * @param gate whose lead and care hold; whose levels do not matter
 * @param worth of a message by a gate; of one that is accepted it does not hang on the levels
 */
export function levelTable(messages: readonly WeighedMessage[], gate: Gate, worth: Worth): Float64Array[] {
  const always = levelled(gate, { accept: 0, ask: 0 });
  // Up to which accept level a message is accepted, and what it comes to then.
  const acceptedTo = messages.map(({ message: { top } }) => {
    const [best] = top;
    if (!best || decide(top, always).decision !== 'accept') return -1;
    let last = LEVELS.length - 1;
    while (LEVELS[last]! > best.confidence) last--;
    return last;
  });
  const whenAccepted = messages.map(({ message }) => worth(message, always));
  return LEVELS.map((ask) => {
    const never = levelled(gate, { accept: NEVER, ask });
    /** What comes of accepting those that are accepted up to a level alone. */
    const change = new Float64Array(LEVELS.length);
    let unaccepted = 0;
    messages.forEach(({ message, weight }, at) => {
      const otherwise = worth(message, never);
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
  /** Of the messages, the share that is accepted by the recommended gate. */
  accepted: number;
  /** What it saves a message, with the bounds between which that may well lie; `null` of no messages. */
  saving: FigureInterval | null;
}

export interface Recommendations {
  /** The levels that cost least. */
  cheapest: Recommendation;
  /** Of the levels that cost less than those that stand, those by which most is accepted. */
  mostAccepted: Recommendation;
}

/** Levels as cheap as the cheapest within this share of it are as good: those nearest to the ones that stand are taken. */
const AS_GOOD = 0.01;
/** Levels by which more is accepted cost at most this share of what those that stand cost: on others they cost more. */
const NO_DEARER = 0.9;

/** Levels, as places in {@link LEVELS}; the ask level is not above the others. */
interface Places {
  ask: number;
  accept: number;
  acceptForms: number;
}

function* allPlaces(withForms: boolean): Generator<Places> {
  for (let ask = 0; ask < LEVELS.length; ask++) {
    for (let accept = Math.max(1, ask); accept < LEVELS.length; accept++) {
      if (!withForms) yield { ask, accept, acceptForms: accept };
      else
        for (let acceptForms = Math.max(1, ask); acceptForms < LEVELS.length; acceptForms++)
          yield { ask, accept, acceptForms };
    }
  }
}

/** What messages come to by any levels; intents with levels of their own keep them. */
class Reckoning {
  readonly withForms: boolean;
  readonly #gate: Gate;
  readonly #parts: Record<'usual' | 'forms' | 'own', WeighedMessage[]> = { usual: [], forms: [], own: [] };

  constructor(messages: readonly WeighedMessage[], gate: Gate) {
    this.#gate = gate;
    for (const one of messages) {
      const first = one.message.top[0]?.intent ?? '';
      const part = ownLevel(first, gate) !== undefined ? 'own' : isReadBack(first, gate) ? 'forms' : 'usual';
      this.#parts[part].push(one);
    }
    this.withForms = this.#parts.forms.length > 0;
  }

  by(worth: Worth): (places: Places) => number {
    const gate = this.#gate;
    const { usual, forms, own } = this.#parts;
    const [ofUsual, ofForms] = [levelTable(usual, gate, worth), levelTable(forms, gate, worth)];
    const ofOwn = LEVELS.map((ask) =>
      own.reduce((sum, { message, weight }) => sum + weight * worth(message, { ...gate, ask }), 0),
    );
    return ({ ask, accept, acceptForms }) => ofUsual[ask]![accept]! + ofForms[ask]![acceptForms]! + ofOwn[ask]!;
  }

  gateAt({ ask, accept, acceptForms }: Places): Gate {
    const forms = this.withForms && { acceptForms: LEVELS[acceptForms]! };
    return { ...this.#gate, ask: LEVELS[ask]!, accept: LEVELS[accept]!, ...forms };
  }
}

/** The first of all by a figure that is to be small, and where that is the same by another. */
function least(all: Iterable<Places>, figures: (places: Places) => [number, number] | null): Places | null {
  let found: { places: Places; first: number; second: number } | null = null;
  for (const places of all) {
    const figure = figures(places);
    if (!figure) continue;
    const [first, second] = figure;
    if (found && (found.first < first || (found.first === first && found.second <= second))) continue;
    found = { places, first, second };
  }
  return found?.places ?? null;
}

const isAccepted: Worth = ({ top }, gate) => (decide(top, gate).decision === 'accept' ? 1 : 0);

/**
 * Levels that cost less on some messages: every ask and accept level is tried, and for a bot with forms that are read
 * back every accept level of these. What became of the messages counts half, and half what their confidences say: few
 * messages go wrong, so that these alone would fit the levels to one or two of them.
 * @param messages none of which the bot was taught
 * @param gate as it stands; its lead is left
 * @param seed of the draws that tell how sure the saving is
 */
export function recommendGate(
  messages: readonly GatedMessage[],
  gate: Gate,
  { costs, seed }: { costs: GateCosts; seed: number },
): Recommendations {
  const now = meanCost(messages, gate, costs);
  const all = [...messages.map((message) => ({ message, weight: 1 })), ...asConfidencesSay(messages)];
  const reckoning = new Reckoning(all, gate);
  const { withForms } = reckoning;
  const cost = reckoning.by((message, one) => costBy(message, one, costs));
  const accepted = reckoning.by(isAccepted);
  let lowest = Infinity;
  for (const places of allPlaces(withForms)) lowest = Math.min(lowest, cost(places));
  const away = (one: Gate): number =>
    Math.abs(one.accept - gate.accept) +
    Math.abs(one.ask - gate.ask) +
    (withForms ? Math.abs(one.acceptForms! - (gate.acceptForms ?? gate.accept)) : 0);
  const cheapest = least(allPlaces(withForms), (places) => {
    const amount = cost(places);
    return amount > lowest * (1 + AS_GOOD) ? null : [away(reckoning.gateAt(places)), amount];
  });
  const limit = NO_DEARER * all.reduce((sum, { message, weight }) => sum + weight * costBy(message, gate, costs), 0);
  const mostAccepted = least(allPlaces(withForms), (places) => {
    const amount = cost(places);
    // Where a mistake costs a question alone no more is asked for than elsewhere.
    return amount > limit || places.acceptForms > places.accept ? null : [-accepted(places), amount];
  });
  const told = (places: Places | null): Recommendation => {
    const found = places && reckoning.gateAt(places);
    const best = messages.length > 0 && found && meanCost(messages, found, costs) < now ? found : gate;
    const savings = messages.map((message) => costBy(message, gate, costs) - costBy(message, best, costs));
    return {
      gate: best,
      now,
      then: meanCost(messages, best, costs),
      accepted:
        messages.length === 0 ? 0 : messages.filter((one) => isAccepted(one, best) === 1).length / messages.length,
      saving: bootstrapMean(savings, seed),
    };
  };
  return { cheapest: told(cheapest), mostAccepted: told(mostAccepted ?? cheapest) };
}
