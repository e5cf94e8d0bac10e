import { sql, type Insertable, type Kysely } from 'kysely';
import type { BotDocument } from '../../core/bot/document.js';
import { applyRestore, type BotAct, type Done } from '../../core/bot/acts/index.js';
import { rowsPut, SETTINGS, slicesOf, touchedBy, type Delta, type Settings } from '../../core/bot/delta.js';
import { missingIn } from '../../core/notes/index.js';
import type { BotSummary, HistoryState } from '../../core/contract/bot.js';
import type { Database } from '../database/schema.js';
import { columnsOf, readDocument, writeDelta } from './documents.js';
import {
  keepAct,
  laterOfOthers,
  nextEntry,
  rowsShown,
  setShown,
  turnEntry,
  type Direction,
  type HistoryEntry,
  type HistoryStep,
  type Shown,
} from './history.js';
import type { Connection } from './lists.js';
import { followRenaming } from './renaming.js';
import { pause } from '../slices.js';

/** A bot as it stands: its document and how many acts brought it there. */
export interface StoredBot {
  id: number;
  document: BotDocument;
  revision: number;
}

/** A bot that is not there, in words for the person who asked. */
export class NoSuchBotError extends Error {
  constructor() {
    super('There is no such bot. It may have been deleted.');
  }
}

/** The bot was changed by another server on the same data. */
export class StaleError extends Error {
  constructor() {
    super('Another program has changed this bot meanwhile. Reload the page and repeat what you did.');
  }
}

/** Who does something, and when. */
export interface By {
  actor: string;
  at: string;
}

/** Writes what was done to a bot. @throws StaleError where the tables hold another revision */
async function writeDone(db: Connection, { id, revision }: StoredBot, done: Done, at: string): Promise<StoredBot> {
  const { numUpdatedRows } = await db
    .updateTable('bot')
    .set({ revision: revision + 1, updated_at: at, missing: missingIn(done.document) })
    .where('id', '=', id)
    .where('revision', '=', revision)
    .executeTakeFirst();
  if (numUpdatedRows !== 1n) throw new StaleError();
  await writeDelta(db, id, done.delta);
  if (done.renaming) await followRenaming(db, id, done.renaming);
  return { id, document: done.document, revision: revision + 1 };
}

/** Lists the bots that are not deleted, the latest changed first. */
export async function listBots(db: Kysely<Database>): Promise<BotSummary[]> {
  const rows = await db
    .selectFrom('bot')
    .select((query) => [
      'bot.id',
      'bot.name',
      'bot.updated_at',
      'bot.missing',
      query
        .selectFrom('model')
        .whereRef('model.bot_id', '=', 'bot.id')
        .select(sql<number | null>`json_extract(held_out, '$.measure.accuracy')`.as('accuracy'))
        .as('heldOut'),
      query
        .selectFrom('test_run')
        .innerJoin('test_set', 'test_set.id', 'test_run.test_set_id')
        .whereRef('test_set.bot_id', '=', 'bot.id')
        .where('test_set.hidden', '=', 0)
        .orderBy('test_run.id', 'desc')
        .limit(1)
        .select(
          sql<
            number | null
          >`coalesce(json_extract(evaluation, '$.value.accuracy'), json_extract(evaluation, '$.accuracy'))`.as(
            'accuracy',
          ),
        )
        .as('proved'),
      query
        .selectFrom('intent')
        .whereRef('intent.bot_id', '=', 'bot.id')
        .select(query.fn.countAll<number>().as('count'))
        .as('intents'),
      query
        .selectFrom('form')
        .whereRef('form.bot_id', '=', 'bot.id')
        .select(query.fn.countAll<number>().as('count'))
        .as('forms'),
      query
        .selectFrom('utterance')
        .innerJoin('intent', 'intent.id', 'utterance.intent_id')
        .whereRef('intent.bot_id', '=', 'bot.id')
        .select(query.fn.countAll<number>().as('count'))
        .as('utterances'),
    ])
    .where('bot.deleted_at', 'is', null)
    .orderBy('bot.updated_at', 'desc')
    .execute();
  return rows.map(({ id, name, updated_at, intents, forms, utterances, heldOut, proved, missing }) => ({
    id,
    name,
    updatedAt: updated_at,
    intents: intents ?? 0,
    forms: forms ?? 0,
    utterances: utterances ?? 0,
    heldOut,
    proved,
    missing,
  }));
}

type BotColumns = Omit<
  Insertable<Database['bot']>,
  'revision' | 'missing' | 'created_at' | 'updated_at' | 'deleted_at'
>;

const settingsOf = (document: BotDocument): Settings =>
  Object.fromEntries(SETTINGS.map((key) => [key, document[key]])) as Settings;

/** Stands in the place of when it was deleted while a bot is being written. */
const BEING_MADE = 'being made';

/** Begins to make a bot: it has its number, and is there when {@link fillBot} is through. */
export async function beginBot(db: Kysely<Database>, document: BotDocument, at: string): Promise<number> {
  const { id } = await db
    .insertInto('bot')
    .values({
      ...(columnsOf(settingsOf(document)) as BotColumns),
      revision: 1,
      missing: missingIn(document),
      created_at: at,
      updated_at: at,
      deleted_at: BEING_MADE,
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
}

/**
 * Writes a bot that was begun, in slices, so that others go on. Where that fails nothing of it is left.
 * @param progress is told how many rows are written, and may throw to stop
 */
export async function fillBot(
  db: Kysely<Database>,
  id: number,
  document: BotDocument,
  progress: (rows: number) => void = () => undefined,
): Promise<void> {
  try {
    let rows = 0;
    for (const delta of slicesOf(document)) {
      await db.transaction().execute((transaction) => writeDelta(transaction, id, delta));
      rows += rowsPut(delta);
      progress(rows);
      await pause();
    }
    await db.updateTable('bot').set({ deleted_at: null }).where('id', '=', id).execute();
  } catch (error) {
    await db.deleteFrom('bot').where('id', '=', id).execute();
    throw error;
  }
}

/** Makes a bot from a document. @returns its number */
export async function createBot(db: Kysely<Database>, document: BotDocument, at: string): Promise<number> {
  const id = await beginBot(db, document, at);
  await fillBot(db, id, document);
  return id;
}

/** Takes away what is left of bots whose making was cut short. @returns their names */
export async function clearHalfMade(db: Kysely<Database>): Promise<string[]> {
  const rows = await db.deleteFrom('bot').where('deleted_at', '=', BEING_MADE).returning('name').execute();
  return rows.map(({ name }) => name);
}

/**
 * Counts what is missing in bots that were written before that was kept with each act.
 * @param report is told of a bot that cannot be read; the others are counted all the same
 */
export async function countMissing(
  db: Kysely<Database>,
  report: (error: unknown, botId: number) => void,
): Promise<void> {
  const uncounted = db.selectFrom('bot').select('id').where('missing', 'is', null).where('deleted_at', 'is', null);
  for (const { id } of await uncounted.execute()) {
    try {
      const document = await readDocument(db, id);
      if (document === null) continue;
      const missing = missingIn(document);
      await db.updateTable('bot').set({ missing }).where('id', '=', id).execute();
    } catch (error) {
      report(error, id);
    }
  }
}

/** @throws NoSuchBotError */
export async function loadBot(db: Kysely<Database>, id: number): Promise<StoredBot> {
  const row = await db.selectFrom('bot').select(['revision', 'deleted_at']).where('id', '=', id).executeTakeFirst();
  const document = row?.deleted_at === null ? await readDocument(db, id) : null;
  if (!row || !document) throw new NoSuchBotError();
  return { id, document, revision: row.revision };
}

/** Deletes a bot so that it can be brought back, or brings it back. @throws NoSuchBotError */
export async function setDeleted(db: Kysely<Database>, id: number, deletedAt: string | null): Promise<void> {
  const { numUpdatedRows } = await db
    .updateTable('bot')
    .set({ deleted_at: deletedAt })
    .where('id', '=', id)
    .executeTakeFirst();
  if (numUpdatedRows === 0n) throw new NoSuchBotError();
}

/** Keeps an act in one transaction: the rows it changed, and what takes it back. An act that changes nothing is not kept. */
export async function saveAct(
  db: Kysely<Database>,
  stored: StoredBot,
  { act, done }: { act: BotAct; done: Done },
  { actor, at }: By,
): Promise<StoredBot> {
  if (done.touched.length === 0) return stored;
  return db.transaction().execute(async (transaction) => {
    const bot = await writeDone(transaction, stored, done, at);
    const step = { restore: done.inverse };
    await keepAct(transaction, stored.id, { actor, label: done.label, act, step, at });
    return bot;
  });
}

/** Shows or hides rows as an act that can be undone. */
export async function saveShown(
  db: Kysely<Database>,
  id: number,
  { shown, label }: { shown: Shown; label: string },
  { actor, at }: By,
): Promise<void> {
  if (shown.ids.length === 0) return;
  await db.transaction().execute(async (transaction) => {
    await setShown(transaction, id, shown);
    const step = { shown: { ...shown, hidden: !shown.hidden } };
    await keepAct(transaction, id, { actor, label, act: { shown }, step, at });
  });
}

/** What became of an undo or redo. */
export type Stepped =
  | { done: true; bot: StoredBot; label: string; delta: Delta | null }
  /** It would take back what another person did; that person's act, and whether it is only in the way. */
  | { done: false; label: string; inTheWay: boolean };

/** What an undo or redo is to do besides the actor's own. */
export interface StepOptions {
  /** Whether it may take back what others did: the person was asked. */
  overOthers: boolean;
}

/**
 * Undoes the last act of a person that stands, or does again the one taken back last. Acts of others stay, unless the
 * person says that they may go.
 * @returns `null` where there is nothing to undo
 * @throws ActError where what the act speaks of has changed so that it cannot be
 */
export async function stepHistory(
  db: Kysely<Database>,
  stored: StoredBot,
  { actor, at }: By,
  { direction, overOthers }: StepOptions & { direction: Direction },
): Promise<Stepped | null> {
  return db.transaction().execute(async (transaction): Promise<Stepped | null> => {
    const own = await nextEntry(transaction, stored.id, direction, actor);
    const entry = own ?? (direction === 'undo' ? await nextEntry(transaction, stored.id, direction, null) : null);
    if (!entry) return null;
    if (!own && !overOthers) return { done: false, label: entry.label, inTheWay: false };
    const turned = turn(stored, entry);
    if (!overOthers) {
      const other = await laterOfOthers(transaction, stored.id, entry, turned.touched);
      if (other) return { done: false, label: other.label, inTheWay: true };
    }
    const bot = turned.done ? await writeDone(transaction, stored, turned.done, at) : stored;
    if (turned.shown) await setShown(transaction, stored.id, turned.shown);
    await turnEntry(transaction, stored.id, entry, {
      undoneBy: direction === 'undo' ? actor : null,
      step: turned.back,
    });
    return { done: true, bot, label: entry.label, delta: turned.done?.delta ?? null };
  });
}

/** What a step of the history does, and what turns it round again. */
function turn(
  { document }: StoredBot,
  { step, label }: HistoryEntry,
): { touched: string[]; back: HistoryStep; done: Done | null; shown: Shown | null } {
  if ('shown' in step) {
    const { shown } = step;
    return { touched: rowsShown(shown), back: { shown: { ...shown, hidden: !shown.hidden } }, done: null, shown };
  }
  const done = applyRestore(document, step.restore, label);
  return { touched: touchedBy(done.delta), back: { restore: done.inverse }, done, shown: null };
}

/** What Ctrl+Z and Ctrl+Shift+Z would do now for a person. */
export async function historyState(db: Kysely<Database>, id: number, actor: string): Promise<HistoryState> {
  const own = await nextEntry(db, id, 'undo', actor);
  const undo = own ?? (await nextEntry(db, id, 'undo', null));
  const redo = await nextEntry(db, id, 'redo', actor);
  return { undo: undo && { label: undo.label, own: own !== null }, redo: redo?.label ?? null };
}
