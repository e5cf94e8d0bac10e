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

/** A line of the list of a person's conversations. */
export interface ConversationSummary {
  id: number;
  name: string | null;
  /** Whether the person wants it kept. */
  kept: boolean;
  startedAt: string;
  turns: number;
  /** How its first message begins. */
  opening: string | null;
}

export interface StoredConversation {
  id: number;
  name: string | null;
  kept: boolean;
  startedAt: string;
  state: ConversationState;
  /** The last of them. */
  turns: StoredTurn[];
}

/** What a turn is answered with. */
export interface TurnTaken {
  turn: StoredTurn;
  state: ConversationState;
}

/** What a person does in Try. */
export type PersonSaid =
  { type: 'text'; text: string } | { type: 'choice'; intent: string } | { type: 'noInput' } | { type: 'handBack' };

export interface TryView {
  conversation: StoredConversation | null;
  /** The person's own, the latest first. */
  conversations: ConversationSummary[];
  greeting: string | null;
  walkthroughs: { id: number; name: string; result: WalkthroughResult | null }[];
}
