import { sql, type Kysely } from 'kysely';

/** States of a bot as it was before an act of its history: the act's label. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql.raw('alter table kept_state add column before_act text').execute(db);
}
