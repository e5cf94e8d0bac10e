import type { Desk, Form, Localised, NoMatchSettings } from '../bot/document.js';
import type { Note } from '../bot/note.js';
import type { TranscriptLine } from '../converse/walkthrough.js';

export interface SayView {
  forms: { name: string; slots: number; missing: boolean }[];
  current: {
    form: Form;
    notes: Note[];
    /** Intents that open it. */
    intents: string[];
    /** The conversation the form gives; `null` until there is a model, or where no intent opens the form. */
    readThrough: TranscriptLine[] | null;
    /** Whether the conversation was given by the bot as it stood before the last act. */
    stale: boolean;
  } | null;
  /** The bot's own entities, then built-in kinds. */
  entities: string[];
  intents: string[];
  desks: Desk[];
  noMatch: NoMatchSettings;
  greeting: Localised;
  language: string;
}
