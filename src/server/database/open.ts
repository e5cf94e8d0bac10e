import { chmodSync, existsSync, mkdirSync } from 'node:fs';
import path from 'node:path';
import { Kysely, Migrator, type Migration } from 'kysely';
import { libsqlDialect } from './driver.js';
import * as first from './migrations/001_first.js';
import * as manners from './migrations/002_manners.js';
import * as conversations from './migrations/003_conversations.js';
import * as rows from './migrations/004_rows.js';
import * as jobs from './migrations/005_jobs.js';
import * as standing from './migrations/006_standing.js';
import * as costs from './migrations/007_costs.js';
import * as testLines from './migrations/008_test_lines.js';
import * as levels from './migrations/009_levels.js';
import * as points from './migrations/010_points.js';
import type { Database } from './schema.js';

/** All migrations in order. One that has landed is never changed; a new one is added. */
const MIGRATIONS: Record<string, Migration> = {
  '001_first': first,
  '002_manners': manners,
  '003_conversations': conversations,
  '004_rows': rows,
  '005_jobs': jobs,
  '006_standing': standing,
  '007_costs': costs,
  '008_test_lines': testLines,
  '009_levels': levels,
  '010_points': points,
};

/** Makes a folder that only its user may look into. */
export function makePrivateFolder(folder: string): void {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  chmodSync(folder, 0o700);
}

/** The files of a database hold what customers wrote: only their user may read them. */
function makePrivate(file: string): void {
  for (const suffix of ['', '-wal', '-shm']) if (existsSync(file + suffix)) chmodSync(file + suffix, 0o600);
}

/**
 * Opens the database, makes its folder if there is none, and brings it to the newest migration.
 * @param wrote is told after each try to write: the error, or `null`
 */
export async function openDatabase(file: string, wrote?: (error: unknown) => void): Promise<Kysely<Database>> {
  if (file !== ':memory:') makePrivateFolder(path.dirname(file));
  const database = new Kysely<Database>({ dialect: libsqlDialect(file, wrote) });
  const migrator = new Migrator({ db: database, provider: { getMigrations: () => Promise.resolve(MIGRATIONS) } });
  const { error } = await migrator.migrateToLatest();
  if (error) {
    await database.destroy();
    throw error instanceof Error ? error : new Error('The database could not be brought up to date.');
  }
  if (file !== ':memory:') makePrivate(file);
  return database;
}
