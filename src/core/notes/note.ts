import type { BotAct } from '../bot/acts/index.js';
import type { BotDocument, Form, Intent, RowId } from '../bot/document.js';

/** What a remark speaks of. */
export interface Place {
  intent?: string;
  /** A row of the sheet of utterances. */
  utterance?: RowId;
  form?: string;
  slot?: string;
}

/** A remark on something that is weak, missing or doubled. */
export interface Note {
  /** The check that made it. */
  check: string;
  place: Place;
  /** In a sentence. */
  text: string;
  /** How much it matters: something is missing, or could be better. */
  weight: 'missing' | 'weak';
  /** The act that mends it. */
  mend?: Mend;
}

export interface Mend {
  /** What the act does, on a button. */
  words: string;
  act: BotAct;
}

/** What a check finds; where it looked and which it is are added. */
export type Remark = Omit<Note, 'check' | 'place'> & { place?: Place };

/** A prediction of a model that had not learned from the utterance. */
export interface HeldOut {
  intent: string;
  text: string;
  predicted: string | null;
}

/** An utterance in which values of some entities could not be looked for. */
export interface Unread {
  intent: string;
  text: string;
  entities: readonly string[];
}

/** What checks look at. */
export interface Looked {
  document: BotDocument;
  /** What the model tells, where there is one. */
  heldOut: readonly HeldOut[];
  unread: readonly Unread[];
}

/** One kind of remark. A check looks at each intent, at each form or at the whole bot. */
export interface Check {
  name: string;
  /** A check that looks at very many rows gives `null` now and then: there others may go on. */
  intent?: (looked: Looked, intent: Intent) => Iterable<Remark | null>;
  form?: (looked: Looked, form: Form) => Remark[];
  bot?: (looked: Looked) => Remark[];
}

/** The language that a bot's texts are looked at in. */
export const spokenIn = ({ languages }: BotDocument): string => languages[0] ?? 'en';
