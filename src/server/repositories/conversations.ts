import type { Kysely, Selectable } from 'kysely';
import type { ConversationSummary, Said, StoredConversation, StoredTurn } from '../../core/contract/try.js';
import {
  startConversation,
  type Act,
  type ConversationState,
  type OpenForm,
  type Say,
  type Trace,
} from '../../core/converse/state.js';
import { emptyForm } from '../../core/converse/turn.js';
import type { Database, TurnTable } from '../database/schema.js';
import { hasParts, readStored, writeStored, type StoredKind } from './stored.js';

/** What of its first message tells a conversation from others, in UTF-16 code units. */
const LONGEST_OPENING = 80;

export async function createConversation(
  db: Kysely<Database>,
  botId: number,
  { person, startedAt, state }: { person: string; startedAt: string; state: ConversationState },
): Promise<number> {
  const { id } = await db
    .insertInto('conversation')
    .values({ bot_id: botId, person, name: null, started_at: startedAt, state: writeStored(STATE, state) })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
}

/**
 * What states did not have when they were kept is as at the beginning. What they remembered by slots alone, up to version
 * 1, is forgotten: it may be of another form.
 */
function upgradeState(kept: unknown): unknown {
  const { remembered, ...state } = kept as Partial<ConversationState>;
  const whole = {
    ...startConversation(''),
    ...state,
    remembered: Array.isArray(remembered) ? remembered : [],
  };
  const form = (open: OpenForm | null): OpenForm | null => open && { ...emptyForm(open.intent, open.form), ...open };
  return { ...whole, open: form(whole.open), last: form(whole.last), parked: whole.parked.map((open) => form(open)!) };
}

const STATE: StoredKind<ConversationState> = {
  name: 'state of the conversation',
  version: 2,
  upgrade: upgradeState,
  is: (value): value is ConversationState =>
    hasParts(value, {
      turns: 'number',
      parked: 'list',
      waiting: 'list',
      remembered: 'list',
      reference: 'string',
      lastSaid: 'list',
    }),
};

const TRACE: StoredKind<Trace> = {
  name: 'trace of the turn',
  version: 1,
  upgrade: (value) => value,
  is: (value): value is Trace =>
    hasParts(value, { reader: 'string', why: 'string', before: 'object', after: 'object' }),
};

/** Conversations of a person, and those from before they belonged to anybody. */
const ofPerson = (db: Kysely<Database>, botId: number, person: string) =>
  db.selectFrom('conversation').where('bot_id', '=', botId).where('person', 'in', [person, '']).where('hidden', '=', 0);

/** The conversations of a person with a bot, the latest first. */
export async function listConversations(
  db: Kysely<Database>,
  botId: number,
  person: string,
  most: number,
): Promise<ConversationSummary[]> {
  const rows = await ofPerson(db, botId, person)
    .select((query) => [
      'id',
      'name',
      'kept',
      'started_at',
      query
        .selectFrom('turn')
        .whereRef('turn.conversation_id', '=', 'conversation.id')
        .select(({ fn }) => fn.countAll<number>().as('count'))
        .as('turns'),
      query
        .selectFrom('turn')
        .whereRef('turn.conversation_id', '=', 'conversation.id')
        .where('position', '=', 0)
        .select('said')
        .as('first'),
    ])
    .orderBy('kept', 'desc')
    .orderBy('id', 'desc')
    .limit(most)
    .execute();
  return rows.map(({ id, name, kept, started_at, turns, first }) => {
    const said = first === null ? null : (JSON.parse(first) as Said);
    return {
      id,
      name,
      kept: kept === 1,
      startedAt: started_at,
      turns: turns ?? 0,
      opening: said?.type === 'text' ? said.text.slice(0, LONGEST_OPENING) : null,
    };
  });
}

/** Which turns of a conversation are read. */
interface TurnsWanted {
  /** The last so many. */
  last: number;
}

const toTurn = (turn: Selectable<TurnTable>): StoredTurn => ({
  position: turn.position,
  said: JSON.parse(turn.said) as Said,
  says: JSON.parse(turn.says) as Say[],
  acts: JSON.parse(turn.acts) as Act[],
  trace: readStored(TRACE, turn.trace),
  revision: turn.revision,
});

/** A conversation of a person (the latest where no number is given) with its last turns, or `null`. */
export async function readConversation(
  db: Kysely<Database>,
  botId: number,
  { person, id }: { person: string; id?: number | undefined },
  { last }: TurnsWanted,
): Promise<StoredConversation | null> {
  let query = ofPerson(db, botId, person).selectAll();
  if (id !== undefined) query = query.where('id', '=', id);
  const row = await query.orderBy('id', 'desc').limit(1).executeTakeFirst();
  if (!row) return null;
  const turns = await db
    .selectFrom('turn')
    .selectAll()
    .where('conversation_id', '=', row.id)
    .orderBy('position', 'desc')
    .limit(last)
    .execute();
  return {
    id: row.id,
    name: row.name,
    kept: row.kept === 1,
    startedAt: row.started_at,
    state: readStored(STATE, row.state),
    turns: turns.map(toTurn).reverse(),
  };
}

/** Whether a person has a conversation of that number with a bot. */
export async function hasConversation(
  db: Kysely<Database>,
  botId: number,
  person: string,
  id: number,
): Promise<boolean> {
  return (await ofPerson(db, botId, person).select('id').where('id', '=', id).executeTakeFirst()) !== undefined;
}

/** Whether anybody has talked to a bot. */
export async function hasTurns(db: Kysely<Database>, botId: number): Promise<boolean> {
  const row = await db
    .selectFrom('turn')
    .innerJoin('conversation', 'conversation.id', 'turn.conversation_id')
    .select('turn.position')
    .where('conversation.bot_id', '=', botId)
    .limit(1)
    .executeTakeFirst();
  return row !== undefined;
}

/** Clears away the oldest conversations of a person that they do not want kept. @param most that may stay */
export async function clearConversations(
  db: Kysely<Database>,
  botId: number,
  person: string,
  most: number,
): Promise<void> {
  const own = db
    .selectFrom('conversation')
    .select('id')
    .where('bot_id', '=', botId)
    .where('person', '=', person)
    .where('kept', '=', 0)
    .orderBy('id', 'desc');
  await db.deleteFrom('conversation').where('id', 'in', own.limit(-1).offset(most)).execute();
}

/** Gives a conversation another name, or has it kept. */
export async function changeConversation(
  db: Kysely<Database>,
  id: number,
  { name, kept }: { name?: string | null | undefined; kept?: boolean | undefined },
): Promise<void> {
  const columns = { ...(name === undefined ? {} : { name }), ...(kept === undefined ? {} : { kept }) };
  if (Object.keys(columns).length > 0) await db.updateTable('conversation').set(columns).where('id', '=', id).execute();
}

/** The turn that its sender gave this number, if it was taken. */
export async function turnSentAs(
  db: Kysely<Database>,
  conversationId: number,
  clientId: string,
): Promise<StoredTurn | null> {
  const turn = await db
    .selectFrom('turn')
    .selectAll()
    .where('conversation_id', '=', conversationId)
    .where('client_id', '=', clientId)
    .executeTakeFirst();
  return turn ? toTurn(turn) : null;
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
        trace: writeStored(TRACE, turn.trace),
        client_id: clientId,
        before: writeStored(STATE, before),
        revision: turn.revision,
      })
      .execute();
    await transaction
      .updateTable('conversation')
      .set({ state: writeStored(STATE, after) })
      .where('id', '=', conversationId)
      .execute();
  });
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
