import { mkdtempSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sql, type Kysely } from 'kysely';
import Libsql from 'libsql';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { StartError, Trouble, troubleOf } from '../trouble.js';
import { lockFolder } from './lock.js';
import { makePrivateFolder, openDatabase } from './open.js';
import type { Database } from './schema.js';

describe('the data folder', () => {
  let folder: string;
  let file: string;
  const opened: Kysely<Database>[] = [];

  beforeEach(() => {
    folder = path.join(mkdtempSync(path.join(tmpdir(), 'reed-gate-staying-')), 'data');
    file = path.join(folder, 'reed-gate.sqlite');
  });

  afterEach(async () => {
    for (const database of opened.splice(0)) await database.destroy();
    rmSync(path.dirname(folder), { recursive: true });
  });

  const open = async (trouble = new Trouble()) => {
    const database = await openDatabase(file, (error) => trouble.note(error));
    opened.push(database);
    return database;
  };

  const insert = (db: Kysely<Database>, text: string) =>
    db
      .insertInto('vector')
      .values({ text, encoder: 'e', vector: new Uint8Array([1]) })
      .execute();

  const texts = async (db: Kysely<Database>) =>
    (await db.selectFrom('vector').select('text').orderBy('text').execute()).map(({ text }) => text);

  it('is one server’s alone, and the next is told whose', () => {
    makePrivateFolder(folder);
    const lock = lockFolder(folder, 'process 7, http://localhost:4173');
    expect(() => lockFolder(folder, 'me')).toThrow(StartError);
    expect(() => lockFolder(folder, 'me')).toThrow(
      /Another Reed Gate \(process 7, http:\/\/localhost:4173\) uses the data/,
    );
    lock.release();
    lockFolder(folder, 'me').release();
  });

  it('is nobody’s to look into but its user’s', async () => {
    const db = await open();
    await insert(db, 'a');
    lockFolder(folder, 'me').release();
    const mode = (name: string) => (statSync(name).mode & 0o777).toString(8);
    expect(mode(folder)).toBe('700');
    for (const suffix of ['', '-wal', '-shm']) expect(mode(file + suffix), suffix).toBe('600');
    expect(mode(path.join(folder, 'server.txt'))).toBe('600');
    expect(mode(path.join(folder, 'server.lock'))).toBe('600');
  });

  it('is read while another program holds it; writing waits, holds up nothing, and goes on', async () => {
    const trouble = new Trouble();
    const db = await open(trouble);
    await insert(db, 'before');
    const other = new Libsql(file);
    other.exec('begin immediate');
    let done = false;
    const writing = insert(db, 'waited').then(() => (done = true));
    const transaction = db.transaction().execute((inside) =>
      inside
        .insertInto('vector')
        .values({ text: 'whole', encoder: 'e', vector: new Uint8Array([1]) })
        .execute(),
    );
    for (let round = 0; round < 20; round++) {
      await new Promise((resolve) => setTimeout(resolve, 10));
      expect(await texts(db)).toEqual(['before']);
    }
    expect(done).toBe(false);
    expect(trouble.now).toMatch(/locked by another program/);
    other.exec('rollback');
    other.close();
    await writing;
    await transaction;
    expect(await texts(db)).toEqual(['before', 'waited', 'whole']);
    expect(trouble.now).toBeNull();
  });

  it('loses nothing when a transaction fails half way, and writes on after it', async () => {
    const db = await open();
    const failing = db.transaction().execute(async (inside) => {
      await inside.insertInto('vector').values({ text: 'half', encoder: 'e', vector: new Uint8Array() }).execute();
      await inside
        .insertInto('intent')
        .values({
          bot_id: 99,
          place: 0,
          name: 'a',
          description: null,
          form: null,
          reply: null,
          desk: null,
          called: null,
          offered: null,
        })
        .execute();
    });
    await expect(failing).rejects.toThrow(/FOREIGN KEY/);
    expect(await texts(db)).toEqual([]);
    await insert(db, 'after');
    expect(await texts(db)).toEqual(['after']);
  });

  it('keeps what others write while a transaction that cannot be committed is rolled back', async () => {
    const trouble = new Trouble();
    const db = await open(trouble);
    await sql`create table late (id integer primary key, of_bot integer references bot(id) deferrable initially deferred)`.execute(
      db,
    );
    const failing = db.transaction().execute((inside) => sql`insert into late (of_bot) values (99)`.execute(inside));
    // These wait behind it, and none may be lost to its rollback.
    const others = ['a', 'b', 'c'].map((text) =>
      db
        .transaction()
        .execute((inside) =>
          inside.insertInto('vector').values({ text, encoder: 'e', vector: new Uint8Array() }).execute(),
        ),
    );
    await expect(failing).rejects.toThrow(/FOREIGN KEY/);
    await Promise.all(others);
    expect(await texts(db)).toEqual(['a', 'b', 'c']);
  });

  it('stays in trouble until something was kept, not merely rolled back', async () => {
    const told: unknown[] = [];
    const db = await openDatabase(file, (error) => told.push(error));
    opened.push(db);
    told.length = 0;
    const failing = db.transaction().execute((inside) =>
      inside
        .insertInto('intent')
        .values({
          bot_id: 99,
          place: 0,
          name: 'a',
          description: null,
          form: null,
          reply: null,
          desk: null,
          called: null,
          offered: null,
        })
        .execute(),
    );
    await expect(failing).rejects.toThrow(/FOREIGN KEY/);
    expect(told).toHaveLength(1);
    expect(told[0]).not.toBeNull();
    await insert(db, 'kept');
    expect(told.at(-1)).toBeNull();
  });

  it('that is taken away is missed at the next write, and is written on when it is back', async () => {
    const trouble = new Trouble();
    const db = await open(trouble);
    await insert(db, 'a');
    renameSync(folder, `${folder}-away`);
    for (const write of [() => insert(db, 'b'), () => db.transaction().execute((own) => insert(own, 'b'))]) {
      expect(troubleOf(await write().catch((error: unknown) => error))).toMatch(
        /was taken away while the program runs/,
      );
    }
    expect(trouble.now).toMatch(/Put it back/);
    expect(await texts(db)).toEqual(['a']);
    renameSync(`${folder}-away`, folder);
    await insert(db, 'c');
    expect(trouble.now).toBeNull();
    expect(await texts(db)).toEqual(['a', 'c']);
  });

  it('that holds no database is refused with a sentence', async () => {
    makePrivateFolder(folder);
    writeFileSync(file, 'this is no database, whatever its name says, and it goes on for a while');
    const error: unknown = await openDatabase(file).catch((reason: unknown) => reason);
    expect(troubleOf(error)).toMatch(/damaged, or is no database/);
  });

  it('of a newer version is refused with a sentence', async () => {
    const db = await open();
    await db.destroy();
    opened.pop();
    const raw = new Libsql(file);
    raw.exec("insert into kysely_migration values ('999_later', '2030-01-01T00:00:00.000Z')");
    raw.close();
    const error: unknown = await openDatabase(file).catch((reason: unknown) => reason);
    expect(troubleOf(error)).toMatch(/newer version/);
  });

  it.each([
    ['SQLITE_FULL', /disk is full/],
    ['ENOSPC', /disk is full/],
    ['SQLITE_BUSY', /locked by another program/],
    ['SQLITE_READONLY_DBMOVED', /cannot be written/],
    ['EACCES', /cannot be written/],
    ['SQLITE_CORRUPT', /damaged/],
    ['ENOTDIR', /there is a file/],
    ['SQLITE_IOERR_WRITE', /disk does not answer/],
  ])('in trouble (%s) is told of in a sentence', (code, sentence) => {
    expect(troubleOf(Object.assign(new Error('x'), { code }))).toMatch(sentence);
  });

  it('has no sentence for what is a fault of ours', () => {
    expect(troubleOf(new TypeError('x is not a function'))).toBeNull();
    expect(troubleOf(null)).toBeNull();
  });
});
