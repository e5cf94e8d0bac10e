import type { BotDocument } from '../bot/document.js';
import type { JobView } from './job.js';
import type { TestSetSummary } from './prove.js';

/** A line of the bot list. */
export interface BotSummary {
  id: number;
  name: string;
  intents: number;
  utterances: number;
  forms: number;
  updatedAt: string;
  /** Held-out accuracy of its intents, 0..1. */
  heldOut: number | null;
  /** Accuracy of its last test run, 0..1. */
  proved: number | null;
  /** How much it has nothing to say to; `null` where there is nothing to count, or it was not counted yet. */
  missing: number | null;
}

/** What a person can undo and do again. */
export interface HistoryState {
  /** `own` tells whether the person did it; what others did is undone only when asked about. */
  undo: { label: string; own: boolean } | null;
  redo: string | null;
}

/** What a screen is told of the model that answers it. */
export interface ModelState {
  /** `current`: taught with the bot as it stands; `catching up`: an older one answers meanwhile; `none`: the first is being trained. */
  state: 'current' | 'catching up' | 'none';
  /** Whether the model is current and the walkthroughs have run with it: nothing on the screen will change by itself. */
  settled: boolean;
  /** Revision the answering model was taught with. */
  revision: number | null;
  trainedAt: string | null;
  /** Utterances that the model could not learn from because the bot has too many. */
  leftOut: number;
  /** How long the last training took, in seconds. */
  seconds: number | null;
  /** Why the last training failed, as a sentence. */
  fault: string | null;
}

/** The live figure of each stage; `null` where there is nothing to count yet. */
export interface StageFigures {
  /** Held-out accuracy of the intents, 0..1. */
  teach: number | null;
  /** Forms with something missing, intents with nothing to say, and texts that put in what is not there. */
  say: number | null;
  /** Of the messages of the last test run, the share that the gate asks about, 0..1. */
  gate: number | null;
  /** Walkthroughs that pass, of how many. */
  try: { passing: number; all: number } | null;
  /** Accuracy of the last test run, 0..1. */
  prove: number | null;
}

/** What a bot is called, where it is and which languages it speaks. */
export type SettingsView = Pick<BotDocument, 'name' | 'languages' | 'timeZone' | 'region'>;

/** What a bot needs before it can be proved; each `true` once it is there. */
export interface FirstSteps {
  /** An intent with a handful of utterances. */
  intent: boolean;
  entity: boolean;
  /** A form with a slot. */
  form: boolean;
  /** Somebody has talked to it. */
  tried: boolean;
  test: boolean;
}

/** What every screen of a bot shows. */
export interface BotFrame {
  bot: { id: number; name: string; revision: number };
  /** How much had been done to the bot and what belongs to it, by which a screen knows whether it missed something. */
  acts: number;
  /** Long work that goes on. */
  jobs: JobView[];
  model: ModelState;
  history: HistoryState;
  steps: FirstSteps;
  figures: StageFigures;
  intents: string[];
  testSets: TestSetSummary[];
}
