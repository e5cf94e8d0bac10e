import { sql, type Kysely } from 'kysely';

/** What mistakes cost the business; nothing where nobody said. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql.raw('alter table bot add column gate_costs text').execute(db);
}
