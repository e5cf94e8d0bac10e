import type { Kysely } from 'kysely';
import type { Said, StoredConversation, StoredTurn } from '../../core/contract/try.js';
import {
  startConversation,
  type Act,
  type ConversationState,
  type OpenForm,
  type Say,
  type Trace,
} from '../../core/converse/state.js';
import { emptyForm } from '../../core/converse/turn.js';
import type { Database } from '../database/schema.js';

export async function createConversation(
  db: Kysely<Database>,
  botId: number,
  startedAt: string,
  state: ConversationState,
): Promise<number> {
  const { id } = await db
    .insertInto('conversation')
    .values({ bot_id: botId, started_at: startedAt, state: JSON.stringify(state) })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
}

/** A kept state; what states did not have when it was kept is as at the beginning. */
function readState(json: string): ConversationState {
  const state = JSON.parse(json) as Partial<ConversationState>;
  const whole = { ...startConversation(''), ...state };
  const form = (open: OpenForm | null): OpenForm | null => open && { ...emptyForm(open.intent, open.form), ...open };
  return { ...whole, open: form(whole.open), last: form(whole.last), parked: whole.parked.map((open) => form(open)!) };
}

/** A conversation of that bot (the latest where no number is given), or `null`. */
export async function readConversation(
  db: Kysely<Database>,
  botId: number,
  id?: number,
): Promise<StoredConversation | null> {
  let query = db.selectFrom('conversation').selectAll().where('bot_id', '=', botId).where('hidden', '=', 0);
  if (id !== undefined) query = query.where('id', '=', id);
  const row = await query.orderBy('id', 'desc').limit(1).executeTakeFirst();
  if (!row) return null;
  const turns = await db
    .selectFrom('turn')
    .selectAll()
    .where('conversation_id', '=', row.id)
    .orderBy('position')
    .execute();
  return {
    id: row.id,
    startedAt: row.started_at,
    state: readState(row.state),
    turns: turns.map((turn) => ({
      position: turn.position,
      said: JSON.parse(turn.said) as Said,
      says: JSON.parse(turn.says) as Say[],
      acts: JSON.parse(turn.acts) as Act[],
      trace: JSON.parse(turn.trace) as Trace,
      revision: turn.revision,
    })),
  };
}

/** Keeps a turn and the state it led to, in one transaction. */
export async function addTurn(
  db: Kysely<Database>,
  conversationId: number,
  turn: StoredTurn,
  { before, after, clientId }: { before: ConversationState; after: ConversationState; clientId: string | null },
): Promise<void> {
  await db.transaction().execute(async (transaction) => {
    await transaction
      .insertInto('turn')
      .values({
        conversation_id: conversationId,
        position: turn.position,
        said: JSON.stringify(turn.said),
        says: JSON.stringify(turn.says),
        acts: JSON.stringify(turn.acts),
        trace: JSON.stringify(turn.trace),
        client_id: clientId,
        before: JSON.stringify(before),
        revision: turn.revision,
      })
      .execute();
    await transaction
      .updateTable('conversation')
      .set({ state: JSON.stringify(after) })
      .where('id', '=', conversationId)
      .execute();
  });
}

/** Whether a conversation has a turn that its sender gave this number. */
export async function hasTurn(db: Kysely<Database>, conversationId: number, clientId: string): Promise<boolean> {
  const turn = await db
    .selectFrom('turn')
    .select('position')
    .where('conversation_id', '=', conversationId)
    .where('client_id', '=', clientId)
    .executeTakeFirst();
  return turn !== undefined;
}

/** Takes the next number for a form to be completed; no two are the same. */
export async function takeReference(db: Kysely<Database>, botId: number): Promise<string> {
  const { next_reference } = await db
    .updateTable('bot')
    .set(({ eb }) => ({ next_reference: eb('next_reference', '+', 1) }))
    .where('id', '=', botId)
    .returning('next_reference')
    .executeTakeFirstOrThrow();
  return String(next_reference - 1);
}

/** Takes back a turn and all after it. */
export async function takeBackTurns(db: Kysely<Database>, conversationId: number, from: number): Promise<void> {
  await db.transaction().execute(async (transaction) => {
    const turn = await transaction
      .selectFrom('turn')
      .select('before')
      .where('conversation_id', '=', conversationId)
      .where('position', '=', from)
      .executeTakeFirst();
    if (!turn) return;
    await transaction
      .updateTable('conversation')
      .set({ state: turn.before })
      .where('id', '=', conversationId)
      .execute();
    await transaction
      .deleteFrom('turn')
      .where('conversation_id', '=', conversationId)
      .where('position', '>=', from)
      .execute();
  });
}
