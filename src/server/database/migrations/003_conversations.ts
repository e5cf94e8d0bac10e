import { sql, type Kysely } from 'kysely';

/** Deleted conversations that come back. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table conversation add column hidden integer not null default 0`.execute(db);
}
