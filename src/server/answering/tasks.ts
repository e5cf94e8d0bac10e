import type { MessagePort } from 'node:worker_threads';
import type { BotDocument } from '../../core/bot/document.js';
import type { PersonSaid } from '../../core/contract/try.js';
import type { HelpThrough } from '../../core/converse/readThrough.js';
import type { ConversationState, Step } from '../../core/converse/state.js';
import type { TranscriptLine, Walkthrough, WalkthroughResult } from '../../core/converse/walkthrough.js';
import type { Vectors } from '../../core/encode/encoder.js';
import type { TestLine } from '../../core/formats/testFile.js';
import type { LineResult } from '../../core/measure/evaluate.js';
import type { Explanation } from '../../core/recognise/explain.js';
import type { SimulatedConversation } from '../../core/simulate/simulate.js';
import type { Recognition } from '../../core/recognise/recognition.js';

/** A model file in memory that threads share. */
export interface SharedModel {
  /** Names it among all models. */
  key: string;
  bytes: Uint8Array;
}

/** What an answering thread does, by name: what it is given, and what it gives. */
export interface Tasks {
  /** Opens a model for what comes; whether its file is as it was written. */
  isWhole: { given: { model: SharedModel }; gives: boolean };
  /** Reads one message. */
  recognise: { given: { model: SharedModel; text: string; now: string; vectors: Vectors }; gives: Recognition };
  /** Takes a conversation one turn further. */
  converse: {
    given: { model: SharedModel; state: ConversationState; said: PersonSaid; now: string; vectors: Vectors };
    gives: Step;
  };
  /** The conversation that a form gives; `null` where no intent opens it. */
  readThrough: { given: { model: SharedModel; form: string; now: string }; gives: TranscriptLine[] | null };
  /** What the bot does where it cannot act on what it hears; messages that it may be unsure about. */
  helpThrough: { given: { model: SharedModel; unsure: string[]; now: string }; gives: HelpThrough };
  /** The texts whose vectors an explanation needs. */
  textsToExplain: { given: { model: SharedModel; text: string }; gives: string[] };
  /** Why a message is read as it is. */
  explain: { given: { model: SharedModel; text: string; now: string; vectors: Vectors }; gives: Explanation };
  /** The texts whose vectors messages need, in test lines or in turns of conversations. */
  textsOf: { given: { model: SharedModel; messages: string[]; as: 'lines' | 'turns' }; gives: string[] };
  /** Reads lines of a test set. */
  readLines: {
    given: { model: SharedModel; lines: TestLine[]; now: string; vectors: Vectors };
    gives: LineResult[];
  };
  /** The texts whose vectors a bot needs that is taught next; whether it learns to find slots too. */
  textsToTeach: { given: { document: BotDocument; key: string; slots: boolean }; gives: string[] };
  /** Teaches a bot, for no bot to keep. */
  teach: { given: { document: BotDocument; key: string; slots: boolean; vectors: Vectors }; gives: SharedModel };
  /** Has a simulated customer talk with the bot; `null` where there is nothing to come for. */
  simulate: {
    given: { model: SharedModel; number: number; seed: number; now: string };
    gives: SimulatedConversation | null;
  };
  /** Runs a walkthrough. */
  walk: {
    given: { model: SharedModel; walkthrough: Walkthrough; now: string; vectors: Vectors };
    gives: WalkthroughResult;
  };
}

export type TaskName = keyof Tasks;

/** A task as it is sent to a thread. */
export type Task<Name extends TaskName = TaskName> = {
  [One in Name]: {
    name: One;
    given: Tasks[One]['given'];
    /** Where vectors are asked for in the middle of the task. */
    port?: MessagePort;
  };
}[Name];
