import { sql, type Kysely } from 'kysely';

/** Models that lie in files of their own, and long work that a restart knows of. */
export async function up(db: Kysely<unknown>): Promise<void> {
  const statements = [
    // Models are taught anew: those kept so far are of another format.
    'drop table model',
    `create table model (
      bot_id integer primary key references bot(id) on delete cascade, revision integer not null, file text not null,
      held_out text not null, trained_at text not null) strict`,
    `create table job (
      id integer primary key, bot_id integer references bot(id) on delete cascade, kind text not null, subject integer,
      state text not null, done integer not null, total integer not null, message text, result integer,
      started_at text not null, ended_at text) strict`,
    'create index job_of_bot on job (bot_id, id)',
  ];
  for (const statement of statements) await sql.raw(statement).execute(db);
}
