import { sql, type Kysely } from 'kysely';

/** Sentences of the engine, names of intents for customers, what a no does, defaults, turns that are sent twice, and deleted tests that come back. */
export async function up(db: Kysely<unknown>): Promise<void> {
  const statements = [
    `alter table bot add column texts text not null default '{}'`,
    'alter table bot add column next_reference integer not null default 40001',
    'alter table intent add column called text',
    'alter table intent add column offered integer',
    'alter table form add column on_no text',
    'alter table slot add column several integer',
    'alter table slot add column default_value text',
    'alter table turn add column client_id text',
    'alter table test_set add column hidden integer not null default 0',
    'alter table test_line add column hidden integer not null default 0',
    'alter table walkthrough add column hidden integer not null default 0',
    'create unique index turn_of_client on turn (conversation_id, client_id) where client_id is not null',
    // Numbers given so far were 40000 and the conversation's own.
    `update bot set next_reference = 40001 + coalesce(
      (select max(id) from conversation where conversation.bot_id = bot.id), 0)`,
  ];
  for (const statement of statements) await sql.raw(statement).execute(db);
}
