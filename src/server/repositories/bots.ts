import jsonPatch from 'fast-json-patch';
import type { Kysely, Transaction } from 'kysely';
import { emptyBot, type BotDocument } from '../../core/bot/document.js';
import type { BotSummary, HistoryState } from '../../core/contract/bot.js';
import type { Database } from '../database/schema.js';
import { botColumns, readDocument, writeDocument } from './documents.js';
import {
  followRenaming,
  keepStep,
  patched,
  readStep,
  reversed,
  setShown,
  type HistoryStep,
  type Renaming,
  type Shown,
} from './history.js';

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

type Connection = Transaction<Database>;

async function writeBot(
  db: Connection,
  id: number,
  before: BotDocument,
  after: BotDocument,
  revision: number,
  at: string,
): Promise<void> {
  await writeDocument(db, id, before, after);
  await db
    .updateTable('bot')
    .set({ ...botColumns(after), revision, updated_at: at })
    .where('id', '=', id)
    .execute();
}

/** Lists the bots that are not deleted, the latest changed first. */
export async function listBots(db: Kysely<Database>): Promise<BotSummary[]> {
  const rows = await db
    .selectFrom('bot')
    .select((query) => [
      'bot.id',
      'bot.name',
      'bot.updated_at',
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
  return rows.map(({ id, name, updated_at, intents, forms, utterances }) => ({
    id,
    name,
    updatedAt: updated_at,
    intents: intents ?? 0,
    forms: forms ?? 0,
    utterances: utterances ?? 0,
  }));
}

/** Makes a bot from a document. @returns its number */
export async function createBot(db: Kysely<Database>, document: BotDocument, at: string): Promise<number> {
  return db.transaction().execute(async (transaction) => {
    const { id } = await transaction
      .insertInto('bot')
      .values({
        ...botColumns(document),
        revision: 1,
        history_position: 0,
        created_at: at,
        updated_at: at,
        deleted_at: null,
      })
      .returning('id')
      .executeTakeFirstOrThrow();
    await writeDocument(transaction, id, emptyBot(document.name), document);
    return id;
  });
}

/** @throws NoSuchBotError */
export async function loadBot(db: Kysely<Database>, id: number): Promise<StoredBot> {
  return db.transaction().execute(async (transaction) => {
    const row = await transaction
      .selectFrom('bot')
      .select(['revision', 'deleted_at'])
      .where('id', '=', id)
      .executeTakeFirst();
    const document = row?.deleted_at === null ? await readDocument(transaction, id) : null;
    if (!row || !document) throw new NoSuchBotError();
    return { id, document, revision: row.revision };
  });
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

/**
 * Keeps an act in one transaction: the document, and the patches that undo it and do it again.
 * @param renaming what tests and walkthroughs follow
 */
export async function saveAct(
  db: Kysely<Database>,
  stored: StoredBot,
  after: BotDocument,
  { label, at, renaming }: { label: string; at: string; renaming?: Renaming | undefined },
): Promise<StoredBot> {
  const revision = stored.revision + 1;
  const patch = jsonPatch.compare(stored.document, after);
  if (patch.length === 0) return stored;
  await db.transaction().execute(async (transaction) => {
    await writeBot(transaction, stored.id, stored.document, after, revision, at);
    if (renaming) await followRenaming(transaction, stored.id, renaming);
    const back = jsonPatch.compare(after, stored.document);
    await keepStep(transaction, stored.id, {
      label,
      at,
      redo: { patch, ...(renaming ? { renaming } : {}) },
      undo: { patch: back, ...(renaming ? { renaming: reversed(renaming) } : {}) },
    });
  });
  return { id: stored.id, document: after, revision };
}

/** Shows or hides rows as an act that can be undone. */
export async function saveShown(
  db: Kysely<Database>,
  id: number,
  shown: Shown,
  label: string,
  at: string,
): Promise<void> {
  if (shown.ids.length === 0) return;
  await db.transaction().execute(async (transaction) => {
    await setShown(transaction, id, shown);
    await keepStep(transaction, id, {
      label,
      at,
      redo: { shown },
      undo: { shown: { ...shown, hidden: !shown.hidden } },
    });
  });
}

/** Undoes the last act or does again the last one undone. @returns the bot and the act's label, or `null` if there is none */
export async function stepHistory(
  db: Kysely<Database>,
  stored: StoredBot,
  direction: 'undo' | 'redo',
  at: string,
): Promise<{ bot: StoredBot; label: string } | null> {
  return db.transaction().execute(async (transaction) => {
    const { history_position: position } = await transaction
      .selectFrom('bot')
      .select('history_position')
      .where('id', '=', stored.id)
      .executeTakeFirstOrThrow();
    const act = await transaction
      .selectFrom('history')
      .selectAll()
      .where('bot_id', '=', stored.id)
      .where('position', '=', direction === 'undo' ? position - 1 : position)
      .executeTakeFirst();
    if (!act) return null;
    const bot = await takeStep(transaction, stored, readStep(act[direction]), at);
    await transaction
      .updateTable('bot')
      .set({ history_position: position + (direction === 'undo' ? -1 : 1) })
      .where('id', '=', stored.id)
      .execute();
    return { bot, label: act.label };
  });
}

async function takeStep(db: Connection, stored: StoredBot, step: HistoryStep, at: string): Promise<StoredBot> {
  if ('shown' in step) {
    await setShown(db, stored.id, step.shown);
    return stored;
  }
  const document = patched(stored.document, step.patch);
  const revision = stored.revision + 1;
  await writeBot(db, stored.id, stored.document, document, revision, at);
  if (step.renaming) await followRenaming(db, stored.id, step.renaming);
  return { id: stored.id, document, revision };
}

/** What Ctrl+Z and Ctrl+Shift+Z would do now. */
export async function historyState(db: Kysely<Database>, id: number): Promise<HistoryState> {
  const bot = await db.selectFrom('bot').select('history_position').where('id', '=', id).executeTakeFirst();
  const position = bot?.history_position ?? 0;
  const rows = await db
    .selectFrom('history')
    .select(['position', 'label'])
    .where('bot_id', '=', id)
    .where('position', 'in', [position - 1, position])
    .execute();
  const labelAt = (at: number) => rows.find((row) => row.position === at)?.label ?? null;
  return { undo: labelAt(position - 1), redo: labelAt(position) };
}
