import type { StoredConversation } from '$core/contract/try.js';
import { finalOutcome, heldValues } from '$core/converse/state.js';
import type { Walkthrough, WalkthroughTurn } from '$core/converse/walkthrough.js';

function turnOf(said: StoredConversation['turns'][number]['said']): WalkthroughTurn {
  switch (said.type) {
    case 'text':
      return { user: said.text };
    case 'choice':
      return { user: said.intent.replace(/[_-]/g, ' ') };
    case 'signal':
      return { signal: said.signal };
    case 'handBack':
      return { handBack: true };
    case 'noInput':
    case 'hangUp':
      return { noInput: true };
  }
}

/** A conversation as a walkthrough that must reach the same outcome. */
export function walkthroughOf(name: string, conversation: StoredConversation): Walkthrough {
  const first = conversation.turns.find(({ said }) => said.type === 'text')?.said;
  return {
    name,
    ...(first?.type === 'text' ? { now: first.now } : {}),
    turns: conversation.turns.map(({ said }) => turnOf(said)),
    expect: { outcome: finalOutcome(conversation.state), slots: heldValues(conversation.state) },
  };
}
