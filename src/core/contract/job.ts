import type { TrialKind } from './trial.js';

/** What long work does. */
export type JobKind = TrialKind | 'test run' | 'walkthroughs' | 'import' | 'encoding';

/** How far long work is. */
export interface JobView {
  id: number;
  botId: number;
  kind: JobKind;
  /** What it works on: a test set. */
  subject: number | null;
  /** `cut short`: the program ended while it ran. */
  state: 'running' | 'done' | 'stopped' | 'failed' | 'cut short';
  done: number;
  total: number;
  /** `null` where that cannot be told. */
  secondsLeft: number | null;
  /** A sentence, where it did not come to its end, or where screens are to be told what came of it. */
  message: string | null;
  /** What came of it: a test run, or a trial. */
  result: number | null;
  startedAt: string;
}
