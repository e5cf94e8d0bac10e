import { sql, type Kysely } from 'kysely';

/** Levels for forms that are read back and for single intents, nothing where the usual one holds; and what was tried. */
export async function up(db: Kysely<unknown>): Promise<void> {
  const statements = [
    'alter table bot add column gate_accept_forms real',
    'alter table intent add column accept real',
    `create table trial (
      id integer primary key, bot_id integer not null references bot(id) on delete cascade, kind text not null,
      settings text not null, revision integer not null, reader text not null, made_at text not null,
      result text not null) strict`,
    'create index trial_of_bot on trial (bot_id, kind, id)',
  ];
  for (const statement of statements) await sql.raw(statement).execute(db);
}
