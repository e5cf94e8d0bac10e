import type { Entity, ListValue, Localised, RowId } from '../bot/document.js';
import type { Mark } from '../bot/marking.js';
import type { Note } from '../notes/note.js';
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

/** Rows of a page of utterances. */
export const UTTERANCES_PAGE = 200;

/** The intent that is open. */
export interface IntentSheet {
  name: string;
  description: string;
  form: string | null;
  reply: Localised | null;
  desk: string | null;
  /** How many utterances there are. */
  count: number;
  /** The ids of all of them in their order, a blank between: very many of them are sent sooner so. */
  ids: string;
  /** One page of them. */
  page: UtteranceLine[];
  notes: Note[];
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

/** Rows of a page of values. */
export const VALUES_PAGE = 100;

/** The entity that is open, with one page of its values. */
export interface EntitySheet extends Omit<Entity, 'values'> {
  /** How many values it has. */
  count: number;
  /** The ids of all of them in their order, a blank between. */
  ids: string;
  /** One page of them. */
  page: ListValue[];
}

export interface EntitiesView {
  entities: EntityLine[];
  current: EntitySheet | null;
  /** Forms whose slots are filled by the entity that is open. */
  usedBy: string[];
}
