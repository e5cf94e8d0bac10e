import { sql, type Kysely } from 'kysely';

/** Levels of the gate for forms that are read back and for single intents; nothing where the usual one holds. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql.raw('alter table bot add column gate_accept_forms real').execute(db);
  await sql.raw('alter table intent add column accept real').execute(db);
}
