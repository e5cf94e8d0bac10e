import type { Kysely } from 'kysely';
import { withoutActs, type BotAct, type Restore } from '../../core/bot/acts/index.js';
import { touchedBy } from '../../core/bot/delta.js';
import type { BotDocument } from '../../core/bot/document.js';
import type { HistoryPoint } from '../../core/contract/prove.js';
import type { Database } from '../database/schema.js';
import type { Connection } from './lists.js';

/** Rows that an act shows or hides; hidden ones come back with undo. */
export interface Shown {
  part: 'test_set' | 'test_line' | 'walkthrough' | 'conversation';
  ids: number[];
  hidden: boolean;
  /** Rows that stand in their place: they are hidden where these are shown, and shown where these are hidden. */
  instead?: number[];
}

/** Names the rows that an act shows or hides: `test_line 7`. */
export const rowsShown = ({ part, ids, instead = [] }: Shown): string[] =>
  [...ids, ...instead].map((id) => `${part} ${id}`);

/** What takes an act back, or does it again. */
export type HistoryStep = { restore: Restore } | { shown: Shown };

/** An act that was done, and may have been taken back since. */
export interface HistoryEntry {
  number: number;
  /** Acts of a higher number came after it was done, taken back or done again. */
  since: number;
  actor: string;
  label: string;
  step: HistoryStep;
}

/** The version of steps as they are kept; steps of another are of no use. */
const STEP_VERSION = 1;

/** Acts kept for undo; older ones are forgotten. */
const HISTORY_LENGTH = 300;

const writeStep = (step: HistoryStep): string => JSON.stringify({ version: STEP_VERSION, ...step });

function readStep(json: string): HistoryStep | null {
  const { version, ...step } = JSON.parse(json) as { version?: number } & HistoryStep;
  return version === STEP_VERSION ? step : null;
}

async function lastNumber(db: Connection, botId: number): Promise<number> {
  const { last } = await db
    .selectFrom('history')
    .select(({ fn }) => fn.max<number | null>('number').as('last'))
    .where('bot_id', '=', botId)
    .executeTakeFirstOrThrow();
  return last ?? 0;
}

/** Keeps an act as the last that was done. What its actor had taken back before is forgotten; of others nothing is. */
export async function keepAct(
  db: Connection,
  botId: number,
  {
    actor,
    label,
    act,
    step,
    at,
  }: { actor: string; label: string; act: BotAct | { shown: Shown }; step: HistoryStep; at: string },
): Promise<void> {
  const number = (await lastNumber(db, botId)) + 1;
  await db
    .deleteFrom('history')
    .where('bot_id', '=', botId)
    .where((where) => where.or([where('undone_by', '=', actor), where('number', '<=', number - HISTORY_LENGTH)]))
    .execute();
  await db
    .insertInto('history')
    .values({
      bot_id: botId,
      number,
      since: number,
      actor,
      label,
      act: JSON.stringify(act),
      step: writeStep(step),
      at,
    })
    .execute();
}

export type Direction = 'undo' | 'redo';

/** The act that undo or redo speaks of: the last of an actor (`null`: of anybody) that stands, or the first that the actor took back. */
export async function nextEntry(
  db: Kysely<Database>,
  botId: number,
  direction: Direction,
  actor: string | null,
): Promise<HistoryEntry | null> {
  let query = db
    .selectFrom('history')
    .select(['number', 'since', 'actor', 'label', 'step'])
    .where('bot_id', '=', botId)
    .orderBy('number', direction === 'undo' ? 'desc' : 'asc')
    .limit(1);
  query = direction === 'undo' ? query.where('undone_by', 'is', null) : query.where('undone_by', '=', actor);
  if (direction === 'undo' && actor !== null) query = query.where('actor', '=', actor);
  const row = await query.executeTakeFirst();
  const step = row ? readStep(row.step) : null;
  return row && step ? { ...row, step } : null;
}

/** An act that stands and that changed the bot, with what takes it back. */
interface StandingAct extends HistoryPoint {
  restore: Restore;
}

/** The acts of a bot that stand, in the order in which they would be taken back to come to where it was before each. */
async function standingActs(db: Kysely<Database>, botId: number): Promise<StandingAct[]> {
  const rows = await db
    .selectFrom('history')
    .select(['number', 'since', 'label', 'at', 'step'])
    .where('bot_id', '=', botId)
    .where('undone_by', 'is', null)
    // An act that was done again came after the one that was the last when it was.
    .orderBy('since', 'desc')
    .orderBy((order) => order.case().when('number', '=', order.ref('since')).then(1).else(0).end())
    .orderBy('number', 'desc')
    .execute();
  return rows.flatMap(({ number, label, at, step: json }) => {
    const step = readStep(json);
    return step && 'restore' in step ? [{ number, label, at, restore: step.restore }] : [];
  });
}

/** The acts that a bot can be kept without, and without all that came after; the newest first. */
export const listPoints = async (db: Kysely<Database>, botId: number): Promise<HistoryPoint[]> =>
  (await standingActs(db, botId)).map(({ number, label, at }) => ({ number, label, at }));

/**
 * A bot without an act of its history, and without all that came after it and stands.
 * @returns `null` where no such act stands
 * @throws ActError where what came after cannot be taken back in order
 */
export async function documentBefore(
  db: Kysely<Database>,
  { id, document }: { id: number; document: BotDocument },
  number: number,
): Promise<{ document: BotDocument; label: string } | null> {
  const acts = await standingActs(db, id);
  const place = acts.findIndex((act) => act.number === number);
  if (place < 0) return null;
  return { document: withoutActs(document, acts.slice(0, place + 1)), label: acts[place]!.label };
}

const touchedByStep = (step: HistoryStep): string[] =>
  'restore' in step ? touchedBy(step.restore.delta) : rowsShown(step.shown);

/** The first act of others, done since and standing, that touches some of the same. @param touched names */
export async function laterOfOthers(
  db: Kysely<Database>,
  botId: number,
  { since, actor }: HistoryEntry,
  touched: readonly string[],
): Promise<HistoryEntry | null> {
  const rows = await db
    .selectFrom('history')
    .select(['number', 'since', 'actor', 'label', 'step'])
    .where('bot_id', '=', botId)
    .where('number', '>', since)
    .where('actor', '!=', actor)
    .where('undone_by', 'is', null)
    .orderBy('number', 'desc')
    .execute();
  const names = new Set(touched);
  for (const row of rows) {
    const step = readStep(row.step);
    if (step && touchedByStep(step).some((name) => names.has(name))) return { ...row, step };
  }
  return null;
}

/** Notes that an act was taken back, and by whom, or done again. @param step what turns it round once more */
export async function turnEntry(
  db: Connection,
  botId: number,
  { number }: HistoryEntry,
  { undoneBy, step }: { undoneBy: string | null; step: HistoryStep },
): Promise<void> {
  await db
    .updateTable('history')
    .set({ undone_by: undoneBy, since: await lastNumber(db, botId), step: writeStep(step) })
    .where('bot_id', '=', botId)
    .where('number', '=', number)
    .execute();
}

/** Hides rows or shows them again. */
export async function setShown(db: Connection, botId: number, { part, ids, hidden, instead }: Shown): Promise<void> {
  if (instead) await setShown(db, botId, { part, ids: instead, hidden: !hidden });
  if (part === 'test_line') {
    const sets = db.selectFrom('test_set').select('id').where('bot_id', '=', botId);
    await db.updateTable(part).set({ hidden }).where('test_set_id', 'in', sets).where('id', 'in', ids).execute();
  } else {
    await db.updateTable(part).set({ hidden }).where('bot_id', '=', botId).where('id', 'in', ids).execute();
  }
}
