import type { NoMatchSettings } from '../bot/document.js';
import type { HelpThrough } from '../converse/readThrough.js';
import type { Gate } from '../recognise/gate.js';
import type { GatedMessage } from '../measure/levels.js';

/** A message that the gate is set by. */
export interface GateMessage extends GatedMessage {
  text: string;
}

/** Messages to set the gate by: a test set with the last run over it, or the utterances, each held out. */
export interface GateSource {
  /** The test set; `null` for the utterances. */
  id: number | null;
  name: string;
  /** When they were read, and what the bot was then; `null` for the utterances, which are read anew with each training. */
  read: { at: string; revision: number } | null;
}

/** An intent as the gate sees it. */
export interface GateIntent {
  name: string;
  /** What accepting it leads to: a form that is read back before anything is done, another form, a desk, or words. */
  does: 'read back' | 'form' | 'desk' | 'reply';
  /** Its own accept level; `null` where what it does decides. */
  accept: number | null;
}

export interface GateView {
  gate: Gate;
  intents: GateIntent[];
  noMatch: NoMatchSettings;
  desks: string[];
  /** What the bot does where it cannot act on what it hears; `null` while there is no model. */
  through: HelpThrough | null;
  sources: GateSource[];
  /** What is shown; `null` where there is nothing to set it by. */
  source: GateSource | null;
  messages: GateMessage[];
}
