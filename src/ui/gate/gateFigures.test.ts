import { describe, expect, it, vi } from 'vitest';
import { DEFAULT_COSTS } from '$core/bot/document.js';
import type { GatedMessage } from '$core/measure/levels.js';
import type { GateRequest } from '$workers/gate.worker.js';
import { Figures } from './gateFigures.svelte.js';

const { Listening } = vi.hoisted(() => {
  /** A worker that writes down what it is asked and answers when the test has it answer. */
  class Listening {
    static readonly all: Listening[] = [];
    readonly asked: GateRequest[] = [];
    answer: (event: { data: object }) => void = () => undefined;
    constructor() {
      Listening.all.push(this);
    }
    addEventListener(_: 'message', listener: (event: { data: object }) => void) {
      this.answer = listener;
    }
    postMessage(request: GateRequest) {
      this.asked.push(request);
    }
    terminate() {}
  }
  return { Listening };
});
vi.mock('$workers/gate.worker.js?worker', () => ({ default: Listening }));

const GATE = { accept: 0.7, ask: 0.3, lead: 0.1 };
const messages = (): GatedMessage[] => [
  { expected: 'order', top: [{ intent: 'order', confidence: 0.8 }] },
  { expected: null, top: [{ intent: 'order', confidence: 0.4 }] },
];

describe('the figures of the gate', () => {
  function looked() {
    const figures = new Figures();
    const worker = Listening.all.at(-1)!;
    figures.takeUp(messages());
    figures.recommend({ ...GATE }, { ...DEFAULT_COSTS });
    worker.answer({ data: { tells: 'recommendations', recommendations: {}, curve: [] } });
    return { figures, asked: () => worker.asked.map(({ ask }) => ask) };
  }

  it('are not looked for anew where the page comes again with the same', () => {
    const { figures, asked } = looked();
    figures.takeUp(messages());
    figures.recommend({ ...GATE }, { ...DEFAULT_COSTS });
    expect(asked()).toEqual(['take up', 'recommend']);
    expect(figures.looking).toBe(false);
  });

  it('are looked for with other costs, levels or messages', () => {
    const { figures, asked } = looked();
    figures.recommend(GATE, { ...DEFAULT_COSTS, wrongAct: 40 });
    figures.recommend({ ...GATE, accept: 0.9 }, DEFAULT_COSTS);
    figures.takeUp(messages().slice(1));
    figures.recommend({ ...GATE, accept: 0.9 }, DEFAULT_COSTS);
    expect(asked()).toEqual(['take up', 'recommend', 'recommend', 'recommend', 'take up', 'recommend']);
    expect(figures.looking).toBe(true);
  });
});
