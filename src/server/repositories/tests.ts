import type { Kysely } from 'kysely';
import type { TestSetSummary } from '../../core/contract/prove.js';
import type { ExpectedSlot, TestLine } from '../../core/formats/testFile.js';
import type { Evaluation, LineResult } from '../../core/measure/evaluate.js';
import type { Database } from '../database/schema.js';
import { inBatches } from '../slices.js';
import { hasParts, readStored, writeStored, type StoredKind } from './stored.js';

/** A finished test run. */
export interface TestRun {
  id: number;
  testSetId: number;
  revision: number;
  ranAt: string;
  evaluation: Evaluation;
  results: LineResult[];
}

/** Figures that runs of earlier versions did not have are told as there being nothing to count. */
const EVALUATION: StoredKind<Evaluation> = {
  name: 'measures of the test run',
  version: 1,
  upgrade: (value) => ({ calibrationErrorOverall: null, taught: 0, calibration: [], styles: [], ...(value as object) }),
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
  return rows.map(({ id, name, lines }) => ({ id, name, lines: lines ?? 0 }));
}

function lineRow(testSetId: number, line: TestLine) {
  return {
    test_set_id: testSetId,
    text: line.text,
    judged: line.intent !== undefined,
    intent: line.intent ?? null,
    now: line.now ?? null,
    slots: line.slots ? JSON.stringify(line.slots) : null,
    style: line.style ?? null,
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

/** Adds one line at the end of a test set. @returns its id */
export async function addTestLine(db: Kysely<Database>, testSetId: number, line: TestLine): Promise<number> {
  const { id } = await db
    .insertInto('test_line')
    .values(lineRow(testSetId, line))
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
}

/** The lines of a test set of that bot, or `null` if the bot has no such set. */
export async function readTestLines(
  db: Kysely<Database>,
  botId: number,
  testSetId: number,
): Promise<TestLine[] | null> {
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
    .orderBy('id')
    .execute();
  return rows.map((row) => ({
    text: row.text,
    ...(row.judged === 1 ? { intent: row.intent } : {}),
    ...(row.now === null ? {} : { now: row.now }),
    ...(row.slots === null ? {} : { slots: JSON.parse(row.slots) as ExpectedSlot[] }),
    ...(row.style === null ? {} : { style: row.style }),
  }));
}

export async function saveTestRun(db: Kysely<Database>, run: Omit<TestRun, 'id'>): Promise<number> {
  const { id } = await db
    .insertInto('test_run')
    .values({
      test_set_id: run.testSetId,
      revision: run.revision,
      ran_at: run.ranAt,
      evaluation: writeStored(EVALUATION, run.evaluation),
      results: writeStored(RESULTS, run.results),
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
}

/** The last run of a test set, or of any set of the bot. */
export async function lastTestRun(db: Kysely<Database>, botId: number, testSetId?: number): Promise<TestRun | null> {
  let query = db
    .selectFrom('test_run')
    .innerJoin('test_set', 'test_set.id', 'test_run.test_set_id')
    .selectAll('test_run')
    .where('test_set.bot_id', '=', botId)
    .where('test_set.hidden', '=', 0);
  if (testSetId !== undefined) query = query.where('test_set.id', '=', testSetId);
  const row = await query.orderBy('test_run.id', 'desc').limit(1).executeTakeFirst();
  if (!row) return null;
  return {
    id: row.id,
    testSetId: row.test_set_id,
    revision: row.revision,
    ranAt: row.ran_at,
    evaluation: readStored(EVALUATION, row.evaluation),
    results: readStored(RESULTS, row.results),
  };
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
