import { sql, type Kysely } from 'kysely';

/** What the list of bots tells of each without reading it. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql.raw('alter table bot add column missing integer').execute(db);
}
