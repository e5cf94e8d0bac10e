import { sql, type Kysely } from 'kysely';

/** Levels for forms that are read back and for single intents, nothing where the usual one holds; what was tried, and bots as
 * they were kept. */
export async function up(db: Kysely<unknown>): Promise<void> {
  const statements = [
    'alter table bot add column gate_accept_forms real',
    'alter table bot add column gate_clarify text',
    'alter table intent add column accept real',
    'alter table slot add column tries integer',
    `create table trial (
      id integer primary key, bot_id integer not null references bot(id) on delete cascade, kind text not null,
      settings text not null, revision integer not null, reader text not null, made_at text not null,
      result text not null) strict`,
    'create index trial_of_bot on trial (bot_id, kind, id)',
    `create table kept_state (
      id integer primary key, bot_id integer not null references bot(id) on delete cascade, name text not null,
      revision integer not null, kept_at text not null, document text not null) strict`,
    'alter table test_run add column state text',
    'alter table test_line add column tags text',
    'alter table test_set add column after_edits integer not null default 0',
  ];
  for (const statement of statements) await sql.raw(statement).execute(db);
}
