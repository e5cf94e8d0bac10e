import { sql, type Kysely } from 'kysely';

/** Test lines keep their place when they are changed, and runs say which weights read them. */
export async function up(db: Kysely<unknown>): Promise<void> {
  const statements = [
    'alter table test_line add column place real',
    'update test_line set place = id',
    'alter table test_run add column reader text',
  ];
  for (const statement of statements) await sql.raw(statement).execute(db);
}
