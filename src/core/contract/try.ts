import type { Act, ConversationEvent, ConversationState, Say, Trace } from '../converse/state.js';
import type { WalkthroughResult } from '../converse/walkthrough.js';

/** What came in, as it is kept: without the sentence vector. */
export type Said = Exclude<ConversationEvent, { type: 'text' }> | { type: 'text'; text: string; now: string };

/** One turn of a kept conversation. */
export interface StoredTurn {
  position: number;
  said: Said;
  says: Say[];
  acts: Act[];
  trace: Trace;
  /** Revision of the model that read it. */
  revision: number;
}

export interface StoredConversation {
  id: number;
  startedAt: string;
  state: ConversationState;
  turns: StoredTurn[];
}

/** What a person does in Try. */
export type PersonSaid =
  { type: 'text'; text: string } | { type: 'choice'; intent: string } | { type: 'noInput' } | { type: 'handBack' };

export interface TryView {
  conversation: StoredConversation | null;
  greeting: string | null;
  walkthroughs: { id: number; name: string; result: WalkthroughResult | null }[];
}
