import type { Desk, Entity, Form, Localised, NoMatchSettings } from '../bot/document.js';
import type { Insert } from '../say/engineTexts.js';
import type { Note } from '../notes/note.js';
import type { TranscriptLine } from '../converse/walkthrough.js';
import type { BotTexts, TextName } from '../say/engineTexts.js';

/** What stands beside every page of Say. */
export interface SayList {
  forms: { name: string; slots: number; missing: boolean }[];
  /** Intents to which the bot has nothing to say. */
  unanswered: string[];
  /** Remarks on texts of the whole bot that put in what is not there. */
  textsMissing: number;
}

export interface SayView extends SayList {
  current: {
    form: Form;
    notes: Note[];
    /** Intents that open it. */
    intents: string[];
    /** What its texts may put in. */
    inserts: Insert[];
    /** The conversation the form gives; `null` until there is a model, or where no intent opens the form. */
    readThrough: TranscriptLine[] | null;
    /** Whether the conversation was given by the bot as it stood before the last act. */
    stale: boolean;
  } | null;
  /** Names of the bot's own entities, then built-in kinds. */
  entities: string[];
  /** The entities that the form's slots use, with their values. */
  lists: Entity[];
  intents: string[];
  desks: string[];
  language: string;
}

/** The sentences of the whole bot. */
export interface TextsView extends SayList {
  texts: BotTexts;
  /** What is said where the bot has no words of its own, the tries with a slash between them. */
  defaults: Record<TextName, string>;
  noMatch: NoMatchSettings;
  greeting: Localised;
  allDesks: Desk[];
  notes: Note[];
  language: string;
}
