import type { ExpressionBuilder, Kysely, Selectable } from 'kysely';
import type { TestSetSummary } from '../../core/contract/prove.js';
import type { ExpectedSlot, TestLine } from '../../core/formats/testFile.js';
import type { TagName } from '../../core/formats/tags.js';
import type { Evaluation, LineResult } from '../../core/measure/evaluate.js';
import { withValue, type ToldValue } from '../../core/measure/testLines.js';
import type { Database, TestRunTable } from '../database/schema.js';
import { inBatches } from '../slices.js';
import { hasParts, readStored, writeStored, type StoredKind } from './stored.js';

/** A finished test run. */
export interface TestRun {
  id: number;
  testSetId: number;
  revision: number;
  ranAt: string;
  /** The weights and the kind of model that read the lines; `null` where that was not kept. */
  reader: string | null;
  /** The name of the kept state that read them; `null`: the bot as it was. */
  state: string | null;
  evaluation: Evaluation;
  results: LineResult[];
}

/** Figures that runs of earlier versions did not have are told as there being nothing to count. */
const EVALUATION: StoredKind<Evaluation> = {
  name: 'measures of the test run',
  version: 1,
  upgrade: (value) => ({
    calibrationErrorOverall: null,
    weightedF1: null,
    kappa: null,
    taught: 0,
    calibration: [],
    styles: [],
    ...(value as object),
  }),
  is: (value): value is Evaluation =>
    hasParts(value, { lines: 'number', intents: 'list', confusion: 'object', gate: 'object', macro: 'object' }),
};

const RESULTS: StoredKind<LineResult[]> = {
  name: 'lines of the test run',
  version: 1,
  upgrade: (value) => value,
  is: (value): value is LineResult[] =>
    Array.isArray(value) && value.every((line) => hasParts(line, { text: 'string', decision: 'string' })),
};

export async function listTestSets(db: Kysely<Database>, botId: number): Promise<TestSetSummary[]> {
  const rows = await db
    .selectFrom('test_set')
    .select((query) => [
      'test_set.id',
      'test_set.name',
      'test_set.after_edits',
      query
        .selectFrom('test_line')
        .whereRef('test_line.test_set_id', '=', 'test_set.id')
        .where('test_line.hidden', '=', 0)
        .select(query.fn.countAll<number>().as('count'))
        .as('lines'),
    ])
    .where('bot_id', '=', botId)
    .where('hidden', '=', 0)
    .orderBy('test_set.id')
    .execute();
  return rows.map(({ id, name, lines, after_edits }) => ({
    id,
    name,
    lines: lines ?? 0,
    afterEdits: after_edits === 1,
  }));
}

/** Says whether a test set is run after each edit session. @returns whether there is such a set */
export async function runAfterEdits(
  db: Kysely<Database>,
  botId: number,
  { id, afterEdits }: { id: number; afterEdits: boolean },
): Promise<boolean> {
  const { numUpdatedRows } = await db
    .updateTable('test_set')
    .set({ after_edits: afterEdits })
    .where('bot_id', '=', botId)
    .where('id', '=', id)
    .where('hidden', '=', 0)
    .executeTakeFirst();
  return numUpdatedRows > 0n;
}

function lineRow(testSetId: number, line: TestLine) {
  return {
    test_set_id: testSetId,
    text: line.text,
    judged: line.intent !== undefined,
    intent: line.intent ?? null,
    now: line.now ?? null,
    slots: writtenSlots(line.slots),
    style: line.style ?? null,
    tags: line.tags ? JSON.stringify(line.tags) : null,
  };
}

/** Keeps a test set whole or not at all. @returns its number */
export async function createTestSet(
  db: Kysely<Database>,
  botId: number,
  { name, lines }: { name: string; lines: readonly TestLine[] },
  at: string,
): Promise<number> {
  return db.transaction().execute(async (transaction) => {
    const { id } = await transaction
      .insertInto('test_set')
      .values({ bot_id: botId, name, created_at: at })
      .returning('id')
      .executeTakeFirstOrThrow();
    const rows = lines.map((line) => lineRow(id, line));
    await inBatches(rows, (batch) => transaction.insertInto('test_line').values(batch).execute());
    return id;
  });
}

/** Adds lines at the end of a test set, hidden until they are shown. @returns their numbers */
export async function addTestLines(
  db: Kysely<Database>,
  testSetId: number,
  lines: readonly TestLine[],
): Promise<number[]> {
  const ids: number[] = [];
  await db.transaction().execute(async (transaction) => {
    const rows = lines.map((line) => ({ ...lineRow(testSetId, line), hidden: true }));
    await inBatches(rows, async (batch) => {
      const added = await transaction.insertInto('test_line').values(batch).returning('id').execute();
      ids.push(...added.map(({ id }) => id));
    });
  });
  return ids;
}

/** What is changed of test lines; `null` takes a style or a tag away. */
export interface TestLineChange {
  text?: string | undefined;
  intent?: string | null | undefined;
  /** Only with the text that they lie in; a text without them has none. */
  slots?: ExpectedSlot[] | undefined;
  value?: ToldValue | undefined;
  style?: string | null | undefined;
  tags?: Partial<Record<TagName, string | null | undefined>> | undefined;
}

const writtenSlots = (slots: readonly ExpectedSlot[] | undefined): string | null =>
  slots ? JSON.stringify(slots) : null;

/** The tags of a line as they are kept, with those changed that are named. */
function changedTags(kept: string | null, change: NonNullable<TestLineChange['tags']>): string | null {
  const before = kept === null ? {} : (JSON.parse(kept) as NonNullable<TestLine['tags']>);
  const tags = Object.entries({ ...before, ...change }).filter(([, value]) => value !== null && value !== undefined);
  return tags.length > 0 ? JSON.stringify(Object.fromEntries(tags)) : null;
}

/** What a line is known by, whatever has been changed of it: its place in the set. */
const numberOfLine = (build: ExpressionBuilder<Database, 'test_line'>) => build.fn.coalesce('place', 'id');

/** The rows of lines as they stand now. @param numbers of the lines */
export const standingLines = (db: Kysely<Database>, testSetId: number, numbers: readonly number[]) =>
  db
    .selectFrom('test_line')
    .selectAll()
    .where('test_set_id', '=', testSetId)
    .where('hidden', '=', 0)
    .where(numberOfLine, 'in', numbers)
    .execute();

/**
 * Makes changed copies of lines, in their places and hidden until they are shown. A changed text has other slots.
 * @returns the rows of the copies, and of the lines that they are of, where they are still there
 */
export async function copyTestLines(
  db: Kysely<Database>,
  testSetId: number,
  { numbers, change }: { numbers: readonly number[]; change: TestLineChange },
): Promise<{ copies: number[]; lines: number[] }> {
  return db.transaction().execute(async (transaction) => {
    const rows = await standingLines(transaction, testSetId, numbers);
    const changed = rows.map(({ id, place, judged, ...row }) => ({
      ...row,
      hidden: true,
      place: place ?? id,
      judged: judged === 1 || change.intent !== undefined,
      ...(change.intent === undefined ? {} : { intent: change.intent }),
      ...(change.text === undefined ? {} : { text: change.text, slots: writtenSlots(change.slots) }),
      ...(change.value === undefined || row.slots === null
        ? {}
        : { slots: writtenSlots(withValue(JSON.parse(row.slots) as ExpectedSlot[], change.value)) }),
      ...(change.style === undefined ? {} : { style: change.style }),
      ...(change.tags === undefined ? {} : { tags: changedTags(row.tags, change.tags) }),
    }));
    const copies: number[] = [];
    await inBatches(changed, async (batch) => {
      const added = await transaction.insertInto('test_line').values(batch).returning('id').execute();
      copies.push(...added.map(({ id }) => id));
    });
    return { copies, lines: rows.map(({ id }) => id) };
  });
}

/** A line with its number, which stays when the line is changed. */
export type NumberedLine = TestLine & { id: number };

/** The lines of a test set of that bot, or `null` if the bot has no such set. */
export async function readTestLines(
  db: Kysely<Database>,
  botId: number,
  testSetId: number,
): Promise<TestLine[] | null> {
  const lines = await readNumberedLines(db, botId, testSetId);
  return lines?.map(({ id: _, ...line }) => line) ?? null;
}

/** The same with the number of each line. */
export async function readNumberedLines(
  db: Kysely<Database>,
  botId: number,
  testSetId: number,
): Promise<NumberedLine[] | null> {
  const set = await db
    .selectFrom('test_set')
    .select('id')
    .where('id', '=', testSetId)
    .where('bot_id', '=', botId)
    .where('hidden', '=', 0)
    .executeTakeFirst();
  if (!set) return null;
  const rows = await db
    .selectFrom('test_line')
    .selectAll()
    .where('test_set_id', '=', testSetId)
    .where('hidden', '=', 0)
    .orderBy(numberOfLine)
    .orderBy('id')
    .execute();
  return rows.map((row) => ({
    id: row.place ?? row.id,
    text: row.text,
    ...(row.judged === 1 ? { intent: row.intent } : {}),
    ...(row.now === null ? {} : { now: row.now }),
    ...(row.slots === null ? {} : { slots: JSON.parse(row.slots) as ExpectedSlot[] }),
    ...(row.style === null ? {} : { style: row.style }),
    ...(row.tags === null ? {} : { tags: JSON.parse(row.tags) as NonNullable<TestLine['tags']> }),
  }));
}

export async function saveTestRun(db: Kysely<Database>, run: Omit<TestRun, 'id'>): Promise<number> {
  const { id } = await db
    .insertInto('test_run')
    .values({
      test_set_id: run.testSetId,
      revision: run.revision,
      ran_at: run.ranAt,
      reader: run.reader,
      state: run.state,
      evaluation: writeStored(EVALUATION, run.evaluation),
      results: writeStored(RESULTS, run.results),
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
}

const runsOf = (db: Kysely<Database>, botId: number) =>
  db
    .selectFrom('test_run')
    .innerJoin('test_set', 'test_set.id', 'test_run.test_set_id')
    .where('test_set.bot_id', '=', botId)
    .where('test_set.hidden', '=', 0)
    .orderBy('test_run.id', 'desc');

const asRun = (row: Selectable<TestRunTable>): TestRun => ({
  ...asRunHead(row),
  results: readStored(RESULTS, row.results),
});

const asRunHead = (row: Omit<Selectable<TestRunTable>, 'results'>): Omit<TestRun, 'results'> => ({
  id: row.id,
  testSetId: row.test_set_id,
  revision: row.revision,
  ranAt: row.ran_at,
  reader: row.reader,
  state: row.state,
  evaluation: readStored(EVALUATION, row.evaluation),
});

/** The last run of a test set, or of any set of the bot. */
export async function lastTestRun(db: Kysely<Database>, botId: number, testSetId?: number): Promise<TestRun | null> {
  let query = runsOf(db, botId).selectAll('test_run');
  if (testSetId !== undefined) query = query.where('test_set.id', '=', testSetId);
  const row = await query.limit(1).executeTakeFirst();
  return row ? asRun(row) : null;
}

/** A run of a test set; `null` where that has no such run. */
export async function readTestRun(
  db: Kysely<Database>,
  botId: number,
  { testSetId, run }: { testSetId: number; run: number },
): Promise<TestRun | null> {
  const query = runsOf(db, botId).selectAll('test_run').where('test_set.id', '=', testSetId);
  const row = await query.where('test_run.id', '=', run).executeTakeFirst();
  return row ? asRun(row) : null;
}

/** The last runs of a test set, the newest first, without their lines. */
export async function listTestRuns(
  db: Kysely<Database>,
  botId: number,
  testSetId: number,
  most: number,
): Promise<Omit<TestRun, 'results'>[]> {
  const columns = ['id', 'test_set_id', 'revision', 'ran_at', 'reader', 'state', 'evaluation'] as const;
  const rows = await runsOf(db, botId)
    .select(columns.map((column) => `test_run.${column}` as const))
    .where('test_set.id', '=', testSetId)
    .limit(most)
    .execute();
  return rows.map(asRunHead);
}

/** The test sets of a bot that were run, with when that was last; without what came of it. */
export async function listRunSets(
  db: Kysely<Database>,
  botId: number,
): Promise<{ id: number; name: string; ranAt: string; revision: number }[]> {
  const rows = await db
    .selectFrom('test_run')
    .innerJoin('test_set', 'test_set.id', 'test_run.test_set_id')
    .select(['test_set.id', 'test_set.name', 'test_run.ran_at', 'test_run.revision'])
    .where('test_set.bot_id', '=', botId)
    .where('test_set.hidden', '=', 0)
    .where('test_run.id', 'in', (query) =>
      query
        .selectFrom('test_run')
        .select(({ fn }) => fn.max('id').as('last'))
        .groupBy('test_set_id'),
    )
    .orderBy('test_set.id')
    .execute();
  return rows.map(({ id, name, ran_at, revision }) => ({ id, name, ranAt: ran_at, revision }));
}
