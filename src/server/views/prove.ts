import type {
  ChangedLine,
  ComparisonView,
  ProveView,
  RunSummary,
  SheetLine,
  WrongLine,
  TestSetSummary,
} from '../../core/contract/prove.js';
import type { BotDocument } from '../../core/bot/document.js';
import { comparisonInWords, compareRuns } from '../../core/measure/compare.js';
import { taughtMessages, verdict, type LineResult } from '../../core/measure/evaluate.js';
import { shareInterval } from '../../core/measure/interval.js';
import { gatedMessages, thresholdCurve } from '../../core/measure/levels.js';
import { slotFaults } from '../../core/measure/slotFigures.js';
import { flagLines } from '../../core/measure/testLines.js';
import type { Application } from '../application.js';
import { lastJob } from '../repositories/jobs.js';
import { listPoints } from '../repositories/history.js';
import { listStates } from '../repositories/states.js';
import {
  listTestRuns,
  listTestSets,
  readNumberedLines,
  readTestRun,
  type NumberedLine,
  type TestRun,
} from '../repositories/tests.js';

const ORDER: WrongLine['verdict'][] = [
  'wrong and accepted',
  'wrong and asked about',
  'not matched',
  'right, wrong slots',
  'right',
];
/** Runs that the trend goes back. */
const MOST_RUNS = 60;
/** Lines of a set that can be worked on in the sheet. */
const MOST_IN_SHEET = 5000;
/** The bounds of a difference are the same each time. */
const SEED = 1;

/** What of a test set is asked for. */
export interface ProveWanted {
  set: string | null;
  run: string | null;
  against: string | null;
  /** The tab that is shown. */
  show: string | null;
}

function summaryOf({ id, ranAt, revision, reader, state, evaluation }: Omit<TestRun, 'results'>): RunSummary {
  const { accuracy, inScope, lines, macro, gate } = evaluation;
  return {
    id,
    ranAt,
    revision,
    reader,
    state,
    lines,
    accuracy,
    interval: accuracy === null ? null : shareInterval(Math.round(accuracy * inScope), inScope),
    macroF1: macro.f1,
    accepted: gate.acceptedInScope,
    rightWhenAccepted: gate.acceptedPrecision,
  };
}

const changed = ({ text, expected = null, predicted }: LineResult): ChangedLine => ({ text, expected, predicted });

function comparisonOf(before: TestRun, after: TestRun): ComparisonView {
  const comparison = compareRuns(before.results, after.results, SEED);
  const { mended, broken, ...rest } = comparison;
  return {
    ...rest,
    against: summaryOf(before),
    inWords: comparisonInWords(comparison),
    mended: mended.map(changed),
    broken: broken.map(changed),
  };
}

function shownRun(run: TestRun, lines: readonly NumberedLine[]): ProveView['run'] {
  const keyOf = (text: string, intent: string | null | undefined) => JSON.stringify([text, intent]);
  const ids = new Map(lines.map(({ id, text, intent }) => [keyOf(text, intent), id]));
  return {
    ...summaryOf(run),
    evaluation: run.evaluation,
    thresholds: thresholdCurve(gatedMessages(run.results)),
    taught: run.results.filter((result) => result.taught).map(({ text }) => text),
    wrong: run.results
      .map((result): WrongLine => {
        const faults = slotFaults(result);
        const outcome = verdict(result);
        return {
          ...result,
          id: ids.get(keyOf(result.text, result.expected)) ?? null,
          verdict: outcome === 'right' && faults !== null && result.expected !== null ? 'right, wrong slots' : outcome,
          slotFaults: faults,
        };
      })
      .filter((result) => result.expected !== undefined && !result.taught && result.verdict !== 'right')
      .sort((a, b) => ORDER.indexOf(a.verdict) - ORDER.indexOf(b.verdict) || b.confidence - a.confidence),
  };
}

async function sheetOf(app: Application, document: BotDocument, botId: number, set: number): Promise<SheetLine[]> {
  const lines = ((await readNumberedLines(app.database, botId, set)) ?? []).slice(0, MOST_IN_SHEET);
  const flags = flagLines(lines, taughtMessages(document));
  return lines.map((line, at) => ({ ...line, flag: flags[at]! }));
}

/** The run that is shown, and the one that it is compared with: the one before it where none is named. */
async function runsShown(
  app: Application,
  botId: number,
  set: TestSetSummary,
  { runs, wanted }: { runs: readonly RunSummary[]; wanted: ProveWanted },
): Promise<Pick<ProveView, 'run' | 'comparison'>> {
  const place = Math.max(
    0,
    runs.findIndex(({ id }) => String(id) === wanted.run),
  );
  const chosen = runs[place];
  const other = runs.find(({ id }) => String(id) === wanted.against && id !== chosen?.id) ?? runs[place + 1];
  const read = async (one: RunSummary | undefined) =>
    one ? readTestRun(app.database, botId, { testSetId: set.id, run: one.id }) : null;
  const [run, before] = [await read(chosen), await read(other)];
  const lines = run ? ((await readNumberedLines(app.database, botId, set.id)) ?? []) : [];
  return { run: run && shownRun(run, lines), comparison: run && before ? comparisonOf(before, run) : null };
}

export async function proveView(app: Application, botId: number, wanted: ProveWanted): Promise<ProveView> {
  const { id, document } = await app.bots.get(botId);
  const testSets = await listTestSets(app.database, id);
  const current = testSets.find((set) => String(set.id) === wanted.set) ?? testSets[0] ?? null;
  const states = await listStates(app.database, id);
  if (!current)
    return {
      testSets,
      current,
      run: null,
      runs: [],
      states,
      points: null,
      comparison: null,
      sheet: null,
      unfinished: null,
    };
  const runs = (await listTestRuns(app.database, id, current.id, MOST_RUNS)).map(summaryOf);
  const last = await lastJob(app.database, { botId: id, kind: 'test run', subject: current.id });
  return {
    testSets,
    current,
    runs,
    states,
    points: wanted.show === 'runs' ? await listPoints(app.database, id) : null,
    ...(await runsShown(app, id, current, { runs, wanted })),
    sheet: wanted.show === 'lines' ? await sheetOf(app, document, id, current.id) : null,
    unfinished: last?.state === 'failed' || last?.state === 'cut short' ? last : null,
  };
}
