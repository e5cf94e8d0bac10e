import type { Check } from './note.js';

/** Intents that take utterances away when they are held out. */
export const mistaken: Check = {
  name: 'mistaken',
  intent: ({ heldOut }, intent) => {
    const counts = new Map<string, number>();
    for (const { intent: own, predicted } of heldOut) {
      if (own !== intent.name || predicted === null || predicted === own) continue;
      counts.set(predicted, (counts.get(predicted) ?? 0) + 1);
    }
    return [...counts]
      .filter(([, count]) => count > 1)
      .sort((a, b) => b[1] - a[1])
      .map(([other, count]) => ({
        text: `${count} utterances are taken for ${other} when held out.`,
        weight: 'weak',
      }));
  },
};
