import type { LineResult } from '../src/core/measure/evaluate.js';

/** How a line was read: accepted, where nothing else is said. */
export const lineResult = (
  text: string,
  expected: string | null | undefined,
  predicted: string,
  more: Partial<LineResult> = {},
): LineResult => ({
  text,
  expected,
  predicted,
  confidence: 0.9,
  decision: 'accept',
  place: 1,
  expectedSlots: null,
  slots: [],
  ...more,
});
