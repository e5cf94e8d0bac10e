import type { GateCosts } from '$core/bot/document.js';
import type { GateFigures } from '$core/measure/gateFigures.js';
import type { GatedMessage } from '$core/measure/levels.js';
import type { Recommendations } from '$core/measure/recommend.js';
import type { Gate } from '$core/recognise/gate.js';
import GateWorker from '$workers/gate.worker.js?worker';
import type { GateAnswer, GateRequest } from '$workers/gate.worker.js';

/**
 * The figures of the gate, reckoned beside the page. While a level moves only the last place that was asked for counts:
 * the next is asked for when the one before has been told.
 */
export class Figures {
  figures = $state.raw<GateFigures | null>(null);
  recommendations = $state.raw<Recommendations | null>(null);
  curve = $state.raw<readonly { level: number; cost: number }[]>([]);
  /** Whether better levels are still looked for: what is shown is of before. */
  looking = $state(false);
  readonly #worker = new GateWorker();
  #next: GateRequest | null = null;
  #busy = false;
  /** Questions for better levels that are not answered yet. */
  #looked = 0;
  /** What the worker was last given and asked, as text: the same is not sent again, since the answer would be the same. */
  #taken = '';
  #recommended = '';

  constructor() {
    this.#worker.addEventListener('message', ({ data }: MessageEvent<GateAnswer>) => {
      if (data.tells === 'figures') {
        this.figures = data.figures;
        this.#busy = false;
        this.#send();
      } else {
        this.recommendations = data.recommendations;
        this.curve = data.curve;
        this.looking = --this.#looked > 0;
      }
    });
  }

  #ask(request: GateRequest): void {
    this.#worker.postMessage(request);
  }

  #send(): void {
    if (this.#busy || !this.#next) return;
    this.#busy = true;
    this.#ask(this.#next);
    this.#next = null;
  }

  takeUp(messages: readonly GatedMessage[]): void {
    const plain = messages.map(({ expected, top }) => ({ expected, top: [...top] }));
    const taken = JSON.stringify(plain);
    if (taken === this.#taken) return;
    this.#taken = taken;
    this.#recommended = '';
    this.#ask({ ask: 'take up', messages: plain });
  }

  tell(gate: Gate, costs: GateCosts): void {
    this.#next = { ask: 'tell', gate: $state.snapshot(gate), costs: { ...costs } };
    this.#send();
  }

  /** Looks for better levels, if the messages, the gate or the costs are others than those last looked with. */
  recommend(gate: Gate, costs: GateCosts): void {
    const request: GateRequest = { ask: 'recommend', gate: $state.snapshot(gate), costs: { ...costs } };
    const recommended = JSON.stringify(request);
    if (recommended === this.#recommended) return;
    this.#recommended = recommended;
    this.#looked++;
    this.looking = true;
    this.#ask(request);
  }

  close(): void {
    this.#worker.terminate();
  }
}
