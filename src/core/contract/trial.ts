import type { WalkthroughResult } from '../converse/walkthrough.js';
import type { CrossValidation } from '../measure/crossValidation.js';
import type { LearningCurve } from '../measure/learningCurve.js';
import type { NoiseTrial } from '../measure/noiseTrial.js';
import type { SimulatedFigures } from '../simulate/figures.js';
import type { SimulatedConversation } from '../simulate/simulate.js';

/** What a bot is put through. */
export const TRIAL_KINDS = ['cross-validation', 'learning curve', 'noise', 'customers'] as const;

export type TrialKind = (typeof TRIAL_KINDS)[number];

/** A trial that is wanted; what is left out is as usual. */
export interface TrialWish {
  kind: TrialKind;
  seed?: number | undefined;
  /** Cross-validation: how often. */
  repeats?: number | undefined;
  /** Noise: the test set, and how strong, 0..1. */
  set?: number | undefined;
  strength?: number | undefined;
  /** Customers: how many conversations. */
  conversations?: number | undefined;
}

/** What each kind of trial gives. */
export interface TrialResults {
  'cross-validation': CrossValidation;
  'learning curve': LearningCurve;
  noise: { set: { id: number; name: string }; lines: number; trials: NoiseTrial[] };
  /** `now`: local ISO time that relative dates were reckoned from. */
  customers: { now: string; figures: SimulatedFigures; conversations: SimulatedConversation[] };
}

/** A trial that came to its end. */
export interface Trial<Kind extends TrialKind = TrialKind> {
  id: number;
  kind: Kind;
  settings: TrialWish;
  /** The bot as it was, and the weights that read: with the same the trial gives the same, to the digit. */
  revision: number;
  reader: string;
  madeAt: string;
  result: TrialResults[Kind];
}

/** The last trial of the kinds that were asked for; `null` where there was none. */
export type LastTrials = { [Kind in TrialKind]?: Trial<Kind> | null };

/** What is shown of trials, in this order. */
export const TRIALS = [...TRIAL_KINDS, 'walkthroughs'] as const;

export interface TrialsView {
  trials: LastTrials;
  /** What became of the walkthroughs with the model that answers; `null` until they have run. */
  walkthroughs: WalkthroughResult[] | null;
  testSets: { id: number; name: string; lines: number }[];
}
