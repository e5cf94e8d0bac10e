import Libsql from 'libsql';
import { SqliteDialect, type SqliteDatabase } from 'kysely';

/** Text that the database would cut short. */
export class NulCharacterError extends Error {
  constructor() {
    super('The text holds a NUL character (U+0000), which cannot be kept. Take it out and try again.');
  }
}

/** The driver aborts the process on booleans and cuts texts at U+0000. */
function toDatabase(value: unknown): unknown {
  if (typeof value === 'boolean') return value ? 1 : 0;
  if (value === undefined) return null;
  if (typeof value === 'string' && value.includes('\0')) throw new NulCharacterError();
  if (value instanceof Uint8Array && !Buffer.isBuffer(value))
    return Buffer.from(value.buffer, value.byteOffset, value.byteLength);
  return value;
}

/** The driver gives blobs as ArrayBuffers. */
function fromDatabase(row: unknown): unknown {
  if (typeof row !== 'object' || row === null) return row;
  return Object.fromEntries(
    Object.entries(row).map(([name, value]) => [name, value instanceof ArrayBuffer ? new Uint8Array(value) : value]),
  );
}

/**
 * Kysely's SQLite dialect over libsql, with what the driver does otherwise than expected put right.
 * @param file path of the database, or `:memory:`
 */
export function libsqlDialect(file: string): SqliteDialect {
  return new SqliteDialect({
    database: () => {
      const database = new Libsql(file, { timeout: 5000 });
      database.exec('PRAGMA journal_mode = WAL');
      database.exec('PRAGMA synchronous = FULL');
      database.exec('PRAGMA foreign_keys = ON');
      const wrapped: SqliteDatabase = {
        close: () => void database.close(),
        prepare: (sql) => {
          const statement = database.prepare(sql);
          return {
            reader: statement.reader,
            all: (parameters) => statement.all(...parameters.map(toDatabase)).map(fromDatabase),
            run: (parameters) => {
              const { changes, lastInsertRowid } = statement.run(...parameters.map(toDatabase));
              return { changes, lastInsertRowid };
            },
            *iterate(parameters) {
              for (const row of statement.iterate(...parameters.map(toDatabase))) yield fromDatabase(row);
            },
          };
        },
      };
      return Promise.resolve(wrapped);
    },
  });
}
