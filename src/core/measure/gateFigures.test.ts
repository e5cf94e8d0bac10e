import { describe, expect, it } from 'vitest';
import { DEFAULT_COSTS } from '../bot/document.js';
import { confidenceHistogram, costCurve, gateFigures } from './gateFigures.js';
import type { GatedMessage } from './levels.js';
import { meanCost } from './recommend.js';

const GATE = { accept: 0.8, ask: 0.4, lead: 0.1 };

const message = (expected: string | null, confidence: number): GatedMessage => ({
  expected,
  top: [{ intent: 'a', confidence }],
});

const messages = [
  message('a', 1),
  message('a', 0.99),
  message('b', 0.85),
  message(null, 0.31),
  message('a', 0.45),
  { expected: 'a', top: [] },
];

describe('what is shown of the gate', () => {
  it('are the messages by confidence, right, wrong and out of scope apart', () => {
    expect(confidenceHistogram(messages, 10)).toEqual({
      right: [0, 0, 0, 0, 1, 0, 0, 0, 0, 2],
      wrong: [1, 0, 0, 0, 0, 0, 0, 0, 1, 0],
      outside: [0, 0, 0, 1, 0, 0, 0, 0, 0, 0],
    });
  });

  it('are the consequences, the cost, and what lies nearest to the borders', () => {
    const figures = gateFigures(messages, GATE, DEFAULT_COSTS);
    expect(figures).toMatchObject({
      messages: 6,
      consequences: { 'accepted rightly': 2, 'accepted wrongly': 1, 'asked, right one offered': 1, missed: 1 },
    });
    expect(figures.intents).toEqual({ a: { accepted: 3, wrong: 1, asked: 1, missed: 1 } });
    // (8 + 1 + 3) / 6
    expect(figures.cost).toBe(2);
    expect(figures.nearest.accept.slice(0, 3)).toEqual([2, 1, 0]);
    expect(figures.nearest.ask.slice(0, 2)).toEqual([4, 3]);
  });

  it('keep the nearest of many, nearest first', () => {
    const many = Array.from({ length: 100 }, (_, at) => message('a', ((at * 37) % 100) / 100));
    const { accept } = gateFigures(many, GATE, DEFAULT_COSTS).nearest;
    const away = accept.map((at) => Math.abs(many[at]!.top[0]!.confidence - GATE.accept));
    expect(away).toEqual([...away].sort((a, b) => a - b));
    expect(Math.max(...away)).toBeCloseTo(0.03, 10);
  });

  it('is the cost by the accept level, the ask level below it', () => {
    const curve = costCurve(messages, GATE, DEFAULT_COSTS);
    expect(curve).toHaveLength(51);
    for (const { level, cost } of curve) {
      const gate = { ...GATE, accept: level, ask: Math.min(GATE.ask, level) };
      expect(cost).toBeCloseTo(meanCost(messages, gate, DEFAULT_COSTS), 10);
    }
  });
});
