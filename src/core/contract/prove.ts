import type { JobView } from './job.js';
import type { TestLine } from '../formats/testFile.js';
import type { RunComparison } from '../measure/compare.js';
import type { Evaluation, LineResult, Verdict } from '../measure/evaluate.js';
import type { ShareInterval } from '../measure/interval.js';
import type { SlotFaults } from '../measure/slotFigures.js';
import type { ThresholdPoint } from '../measure/levels.js';
import type { LineFlag } from '../measure/testLines.js';

/** A line of the list of test sets. */
export interface TestSetSummary {
  id: number;
  name: string;
  lines: number;
  /** Whether it is run after each edit session. */
  afterEdits: boolean;
}

/** A bot as it was kept by a name. */
export interface KeptState {
  id: number;
  name: string;
  /** Of the bot when it was kept. */
  revision: number;
  keptAt: string;
  /** The act that it is without, and without all that came after; `null` for the bot as it was when it was kept. */
  before: string | null;
}

/** An act that a bot can be kept without, and without all that came after. */
export interface HistoryPoint {
  number: number;
  label: string;
  at: string;
}

/** A test line that did not come out right, or was not matched. */
export interface WrongLine extends LineResult {
  /** Of the line in the test set; `null` where it has been changed or deleted since. */
  id: number | null;
  verdict: Verdict | 'right, wrong slots';
  /** What of its slots is not as it ought to be. */
  slotFaults: SlotFaults | null;
}

/** What the list of runs and the trend tell of one. */
export interface RunSummary {
  id: number;
  ranAt: string;
  revision: number;
  reader: string | null;
  /** The kept state of the bot that was read with; `null`: the bot as it was then. */
  state: string | null;
  /** Lines that count. */
  lines: number;
  accuracy: number | null;
  /** Where the accuracy may well lie (95 %). */
  interval: ShareInterval | null;
  macroF1: number | null;
  accepted: number | null;
  rightWhenAccepted: number | null;
}

/** A run beside another of the same test set. */
export interface ComparisonView extends Omit<RunComparison, 'mended' | 'broken'> {
  against: RunSummary;
  inWords: string;
  mended: ChangedLine[];
  broken: ChangedLine[];
}

/** A line that is read otherwise than before. */
export interface ChangedLine {
  text: string;
  expected: string | null;
  predicted: string | null;
}

/** A line of the sheet of a test set. */
export interface SheetLine extends TestLine {
  id: number;
  flag: LineFlag | null;
}

export interface ProveView {
  testSets: TestSetSummary[];
  current: TestSetSummary | null;
  /** The run that is shown; `taught` are messages that the bot had also been taught, which are in no figure. */
  run:
    | (RunSummary & { evaluation: Evaluation; wrong: WrongLine[]; taught: string[]; thresholds: ThresholdPoint[] })
    | null;
  /** The newest first. */
  runs: RunSummary[];
  /** The newest first. */
  states: KeptState[];
  /** The acts of the history that stand, the newest first, where they are asked for. */
  points: HistoryPoint[] | null;
  /** With the run before it, or the one that was asked for; `null` where there is none. */
  comparison: ComparisonView | null;
  /** The lines of the set, where these are asked for; a very long set gives its first. */
  sheet: SheetLine[] | null;
  /** The last run, where it failed or was cut short by the end of the program. */
  unfinished: JobView | null;
}
