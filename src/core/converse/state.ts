import type { Vectors } from '../encode/encoder.js';
import type { Recognition } from '../recognise/recognition.js';
import type { SlotValue, Value, Values } from '../recognise/value.js';

/** A form being filled. Plain data. */
export interface OpenForm {
  intent: string;
  form: string;
  values: Values;
  /** The slot that was asked for last. */
  asked: string | null;
  /** Filling slots, waiting for yes or no to the read-back, or waiting to hear what is to change. */
  stage: 'filling' | 'confirming' | 'changing';
  /** Values for slots of which it is not known yet whether they apply. */
  early: Values;
  /** Slots that are to be asked for anew, though they hold something. */
  toAsk: string[];
  /** Which of several values is wanted, while that is being asked. */
  between: { slot: string; values: Value[] } | null;
  /** Which slot some words are for, while that is being asked. */
  fits: { said: string; options: { slot: string; value: SlotValue }[] } | null;
}

/** An intent offered to the customer, with the slot values read for it from the message that was unclear. */
export interface OfferedIntent {
  intent: string;
  values: Values;
}

/** A value that a slot of some form held; another form may have a slot of that name for something else. */
export interface Remembered {
  slot: string;
  entity: string;
  value: SlotValue;
}

export type Outcome = 'completed' | 'cancelled' | 'handed_off' | 'abandoned';

/** Where a conversation stands. Plain data; `step` never changes it but gives a new one. */
export interface ConversationState {
  turns: number;
  open: OpenForm | null;
  /** Forms put aside for another, the latest last. */
  parked: OpenForm[];
  /** The form that was last completed or left. */
  last: OpenForm | null;
  /** Tries in a row that were not understood. */
  tries: number;
  /** Times in a row that it was asked which intent is meant. */
  clarified: number;
  /** Intents between which the customer was asked to choose, with what the message gives to the form of each. */
  choosing: OfferedIntent[] | null;
  outcome: Outcome | null;
  /** The desk that took over; the bot is silent until the conversation is handed back. */
  desk: string | null;
  /** Whether the customer was told that a desk has taken over, after writing on. */
  toldOfDesk: boolean;
  /** A clarification that another request put off; it is asked again once that is done. */
  unsettled: OfferedIntent[] | null;
  /** Wishes of a message that come after the one being seen to. */
  waiting: OfferedIntent[];
  /** The wish that was offered last, while the customer is asked whether to go on with it. */
  offered: OfferedIntent | null;
  /** Times in a row that nothing was said. */
  silences: number;
  /** What forms held that were completed, the latest first: what "the same as before" means. */
  remembered: Remembered[];
  /** Number given to a form when it is completed, as `{reference}` in its texts. */
  reference: string;
  /** The number of the form that was completed last. */
  lastReference: string | null;
  /** What the bot said last, for saying it again. */
  lastSaid: Say[];
}

/** Something the bot says. */
export interface Say {
  text: string;
  /** Intents offered to choose from. */
  choices?: { intent: string; label: string }[];
}

/** Something the bot does beside speaking. */
export type Act =
  | { act: 'openForm'; form: string; intent: string }
  | { act: 'resumeForm'; form: string }
  | { act: 'setSlot'; slot: string; value: SlotValue; before?: SlotValue }
  | { act: 'clearSlot'; slot: string; before: SlotValue }
  | { act: 'complete'; form: string; intent: string; values: Values; reference: string }
  | { act: 'cancel'; form: string | null }
  | { act: 'handOver'; desk: string }
  | { act: 'handBack'; desk: string };

/** What comes in. */
export type ConversationEvent =
  | { type: 'text'; text: string; vectors: Vectors; now: string }
  | { type: 'choice'; intent: string }
  | { type: 'signal'; signal: string }
  | { type: 'noInput' }
  | { type: 'handBack' }
  | { type: 'hangUp' };

/** Why a turn went as it did. */
export interface Trace {
  /** The reader that took the turn. */
  reader: string;
  /** In a sentence. */
  why: string;
  recognition: Recognition | null;
  before: Values;
  after: Values;
}

/** What a turn gives. */
export interface Step {
  state: ConversationState;
  says: Say[];
  acts: Act[];
  trace: Trace;
}

/** A conversation in which nothing has been said. @param reference number for a form completed in it */
export function startConversation(reference: string): ConversationState {
  return {
    turns: 0,
    open: null,
    parked: [],
    last: null,
    tries: 0,
    clarified: 0,
    choosing: null,
    outcome: null,
    desk: null,
    toldOfDesk: false,
    unsettled: null,
    waiting: [],
    offered: null,
    silences: 0,
    remembered: [],
    reference,
    lastReference: null,
    lastSaid: [],
  };
}

/** The slots a conversation holds now: of the open form, else of the last one. */
export function heldValues(state: ConversationState): Values {
  return (state.open ?? state.last)?.values ?? {};
}

/** How a conversation ended that goes no further: one left in the middle of a form was abandoned. */
export function finalOutcome(state: ConversationState): Outcome {
  if (state.outcome === 'handed_off') return 'handed_off';
  return state.open ? 'abandoned' : (state.outcome ?? 'abandoned');
}
