import type { Walkthrough } from '../converse/walkthrough.js';
import type { SimulatedConversation } from './simulate.js';

/**
 * A simulated conversation as a walkthrough: that it comes to the same end.
 * @param now local ISO time that its dates were reckoned from
 */
export function walkthroughOf(
  { temper, intent, number, transcript, end, slots }: SimulatedConversation,
  now: string,
): Walkthrough {
  return {
    name: `${intent}, ${temper} customer ${number}`,
    now,
    turns: transcript.map(({ says: _, ...turn }) => turn),
    expect: { ...(end === 'completed' && { outcome: 'completed' }), slots },
  };
}
