import { costCurve, gateFigures, type GateFigures } from '$core/measure/gateFigures.js';
import type { GatedMessage } from '$core/measure/levels.js';
import type { Gate } from '$core/recognise/gate.js';
import { recommendGate, type Recommendations } from '$core/measure/recommend.js';
import type { GateCosts } from '$core/bot/document.js';

/** What the worker is asked: to take up messages, to tell what a gate comes to, or to look for a better one. */
export type GateRequest =
  | { ask: 'take up'; messages: GatedMessage[] }
  | { ask: 'tell'; gate: Gate; costs: GateCosts }
  | { ask: 'recommend'; gate: Gate; costs: GateCosts };

export type GateAnswer =
  | { tells: 'figures'; figures: GateFigures }
  | { tells: 'recommendations'; recommendations: Recommendations; curve: { level: number; cost: number }[] };

/** The saving is the same each time. */
const SEED = 1;

let messages: readonly GatedMessage[] = [];

const answer = (told: GateAnswer): void => self.postMessage(told);

self.addEventListener('message', ({ data }: MessageEvent<GateRequest>) => {
  if (data.ask === 'take up') messages = data.messages;
  else if (data.ask === 'tell') answer({ tells: 'figures', figures: gateFigures(messages, data.gate, data.costs) });
  else {
    const recommendations = recommendGate(messages, data.gate, { costs: data.costs, seed: SEED });
    answer({ tells: 'recommendations', recommendations, curve: costCurve(messages, data.gate, data.costs) });
  }
});
