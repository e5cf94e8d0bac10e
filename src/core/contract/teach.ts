import type { Entity, Localised, RowId } from '../bot/document.js';
import type { Mark } from '../bot/marking.js';
import type { Note } from '../bot/note.js';
import type { UnknownValue } from '../bot/notes.js';
import type { ShareInterval } from '../measure/interval.js';
import type { Decision } from '../recognise/gate.js';

/** A line of the list of intents. */
export interface IntentLine {
  name: string;
  utterances: number;
  /** Share of its utterances recognised when held out, 0..1; `null` until measured. */
  recall: number | null;
}

/** How an utterance fares with a model that did not learn from it. */
export interface HeldOutMark {
  predicted: string | null;
  /** Confidence of the intent it belongs to, 0..1. */
  confidence: number;
  /** What the gate would make of it: accepted as its intent, asked about, or missed. */
  decision: Decision;
}

/** A row of the sheet of utterances. */
export interface UtteranceLine {
  id: RowId;
  /** With inline marking, as a person edits it. */
  source: string;
  text: string;
  marks: Mark[];
  heldOut: HeldOutMark | null;
}

/** The intent that is open. */
export interface IntentSheet {
  name: string;
  description: string;
  form: string | null;
  reply: Localised | null;
  desk: string | null;
  rows: UtteranceLine[];
  notes: Note[];
  unknown: UnknownValue[];
  /** What words can be marked as: the form's slots, else entities. */
  markable: string[];
  /** Everything that tags in its utterances may name. */
  known: string[];
  /** How it is named to customers, as the bot has it; the proposal where it has none. */
  called: Localised | null;
  proposed: string;
  /** Whether it stands in clarifications and help, as it is or by default. */
  offered: boolean;
  recall: number | null;
}

export interface TeachView {
  intents: IntentLine[];
  /** Held-out accuracy of all utterances, with the bounds it may well lie between; `null` until measured. */
  heldOut: ShareInterval | null;
  current: IntentSheet | null;
  forms: string[];
  desks: string[];
  language: string;
}

/** A line of the list of entities. */
export interface EntityLine {
  name: string;
  kind: string;
  values: number | null;
}

export interface EntitiesView {
  entities: EntityLine[];
  current: Entity | null;
  /** Forms whose slots are filled by the entity that is open. */
  usedBy: string[];
}
