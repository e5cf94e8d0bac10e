import { existsSync } from 'node:fs';
import Libsql from 'libsql';
import {
  CompiledQuery,
  SelectQueryNode,
  SqliteAdapter,
  SqliteIntrospector,
  SqliteQueryCompiler,
  type DatabaseConnection,
  type Dialect,
  type Driver,
  type QueryResult,
} from 'kysely';

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

/** The driver gives blobs as ArrayBuffers; the row, which nobody else has, gets bytes in their place. */
function fromDatabase(row: unknown): unknown {
  const values = row as Record<string, unknown>;
  for (const name in values) {
    const value = values[name];
    if (value instanceof ArrayBuffer) values[name] = new Uint8Array(value);
  }
  return values;
}

/** How long writing waits for a lock of another program, in all and at once, in milliseconds. */
const PATIENCE = 10_000;
const NAP = 50;

function codeOf(error: unknown): string {
  const code: unknown = (error as { code?: unknown } | null)?.code;
  return typeof code === 'string' ? code : '';
}

const isLocked = (error: unknown): boolean => /^SQLITE_(BUSY|LOCKED)/.test(codeOf(error));

/** A statement that fails stays open in the driver, and nothing can be committed beside it. */
const leavesOpen = (error: unknown): boolean =>
  /^SQLITE_(BUSY|LOCKED|FULL|IOERR|READONLY|CANTOPEN|CORRUPT|ERROR)/.test(codeOf(error));

/** The file that is written to has been taken away; what is written now would be lost with the process. */
class GoneError extends Error {
  readonly code = 'FILE_GONE';
}

/** A handle on the database file; waits for nobody. */
class Handle {
  readonly #file: string;
  #database: Libsql.Database;

  constructor(file: string) {
    this.#file = file;
    this.#database = open(file);
  }

  execute<R>({ sql, parameters }: CompiledQuery): QueryResult<R> {
    const statement = this.#database.prepare(sql);
    const bound = parameters.map(toDatabase);
    if (statement.reader) return { rows: statement.all(...bound).map(fromDatabase) as R[] };
    const { changes, lastInsertRowid } = statement.run(...bound);
    return { numAffectedRows: BigInt(changes), insertId: BigInt(lastInsertRowid), rows: [] };
  }

  /** @throws GoneError where the file is no longer there: the system would let it be written all the same */
  requireFile(): void {
    if (this.#file !== ':memory:' && !existsSync(this.#file)) throw new GoneError('The file of the data is gone.');
  }

  /** Begins anew after an error that left a statement open. A database in memory would be lost with its handle. */
  reopen(): void {
    if (this.#file === ':memory:') return;
    this.#database.close();
    this.#database = open(this.#file);
  }

  close(): void {
    this.#database.close();
  }
}

function open(file: string): Libsql.Database {
  const database = new Libsql(file, { timeout: NAP });
  database.exec('PRAGMA journal_mode = WAL');
  database.exec('PRAGMA synchronous = FULL');
  database.exec('PRAGMA foreign_keys = ON');
  return database;
}

/** Lets one in at a time. */
class Gate {
  #last: Promise<void> = Promise.resolve();

  /** @returns what lets the next one in */
  async enter(): Promise<() => void> {
    const before = this.#last;
    let leave!: () => void;
    this.#last = new Promise((resolve) => (leave = resolve));
    await before;
    return leave;
  }
}

/** What the connections of one database share. */
interface Shared {
  /** For what is read outside of transactions: it never waits for what is being written. */
  reader: Handle;
  /** For what is written; one at a time. */
  writer: Handle;
  gate: Gate;
  /** Is told how writing went. */
  wrote: (error: unknown) => void;
}

class Connection implements DatabaseConnection {
  readonly #shared: Shared;
  /** Lets the next transaction in, while one is open here. */
  #leave: (() => void) | null = null;

  constructor(shared: Shared) {
    this.#shared = shared;
  }

  async executeQuery<R>(query: CompiledQuery): Promise<QueryResult<R>> {
    const { reader, writer } = this.#shared;
    if (this.#leave) return this.#noted(() => writer.execute<R>(query));
    if (SelectQueryNode.is(query.query)) return reader.execute<R>(query);
    const leave = await this.#shared.gate.enter();
    try {
      const result = await this.#patiently(() => writer.execute<R>(query));
      this.#shared.wrote(null);
      return result;
    } finally {
      leave();
    }
  }

  async begin(): Promise<void> {
    const leave = await this.#shared.gate.enter();
    try {
      await this.#patiently(() => this.#shared.writer.execute(CompiledQuery.raw('begin immediate')));
      this.#leave = leave;
    } catch (error) {
      leave();
      throw error;
    }
  }

  /** What fails here is rolled back by whoever asked, so the gate stays shut until then. */
  async commit(): Promise<void> {
    await this.executeQuery(CompiledQuery.raw('commit'));
    this.#shared.wrote(null);
    this.#open();
  }

  async rollback(): Promise<void> {
    try {
      await this.executeQuery(CompiledQuery.raw('rollback'));
    } catch {
      // Work that failed half way may have ended the transaction by itself; a fresh handle has none open.
    } finally {
      this.#shared.writer.reopen();
      this.#open();
    }
  }

  /** Lets the next one in. */
  #open(): void {
    this.#leave?.();
    this.#leave = null;
  }

  streamQuery<R>(): AsyncIterableIterator<QueryResult<R>> {
    throw new Error('Rows are not read one by one here.');
  }

  /** Tells of errors. That a statement of a transaction went well says nothing yet: it may not be kept. */
  #noted<T>(work: () => T): T {
    try {
      return work();
    } catch (error) {
      this.#shared.wrote(error);
      throw error;
    }
  }

  /** Writes as soon as no other program holds the file; others go on meanwhile. */
  async #patiently<T>(work: () => T): Promise<T> {
    const until = performance.now() + PATIENCE;
    for (;;) {
      try {
        return this.#noted(() => {
          this.#shared.writer.requireFile();
          return work();
        });
      } catch (error) {
        if (leavesOpen(error)) this.#shared.writer.reopen();
        if (!isLocked(error) || performance.now() > until) throw error;
        await new Promise((resolve) => setTimeout(resolve, NAP));
      }
    }
  }
}

class LibsqlDriver implements Driver {
  readonly #file: string;
  readonly #wrote: (error: unknown) => void;
  #shared: Shared | null = null;

  constructor(file: string, wrote: (error: unknown) => void) {
    this.#file = file;
    this.#wrote = wrote;
  }

  init(): Promise<void> {
    const writer = new Handle(this.#file);
    const reader = this.#file === ':memory:' ? writer : new Handle(this.#file);
    this.#shared = { reader, writer, gate: new Gate(), wrote: this.#wrote };
    return Promise.resolve();
  }

  acquireConnection(): Promise<DatabaseConnection> {
    return Promise.resolve(new Connection(this.#shared!));
  }

  beginTransaction(connection: DatabaseConnection): Promise<void> {
    return (connection as Connection).begin();
  }

  commitTransaction(connection: DatabaseConnection): Promise<void> {
    return (connection as Connection).commit();
  }

  rollbackTransaction(connection: DatabaseConnection): Promise<void> {
    return (connection as Connection).rollback();
  }

  releaseConnection(): Promise<void> {
    return Promise.resolve();
  }

  destroy(): Promise<void> {
    const shared = this.#shared;
    if (shared && shared.reader !== shared.writer) shared.reader.close();
    shared?.writer.close();
    return Promise.resolve();
  }
}

/**
 * SQLite over libsql, with what the driver does otherwise than expected put right. Reading never waits for writing, and
 * writing waits for the locks of other programs without holding up anything else.
 * @param file path of the database, or `:memory:`
 * @param wrote is told after each try to write: the error, or `null`
 */
export function libsqlDialect(file: string, wrote: (error: unknown) => void = () => undefined): Dialect {
  return {
    createAdapter: () => new SqliteAdapter(),
    createDriver: () => new LibsqlDriver(file, wrote),
    createIntrospector: (db) => new SqliteIntrospector(db),
    createQueryCompiler: () => new SqliteQueryCompiler(),
  };
}
