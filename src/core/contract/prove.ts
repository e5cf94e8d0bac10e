import type { JobView } from './job.js';
import type { Evaluation, LineResult, Verdict } from '../measure/evaluate.js';

/** A line of the list of test sets. */
export interface TestSetSummary {
  id: number;
  name: string;
  lines: number;
}

/** A test line that did not come out right, or was not matched. */
export interface WrongLine extends LineResult {
  verdict: Verdict;
}

export interface ProveView {
  testSets: TestSetSummary[];
  current: TestSetSummary | null;
  /** The last run; `taught` are messages that the bot had also been taught, which are in no figure. */
  run: { ranAt: string; revision: number; evaluation: Evaluation; wrong: WrongLine[]; taught: string[] } | null;
  /** The last run, where it failed or was cut short by the end of the program. */
  unfinished: JobView | null;
}
