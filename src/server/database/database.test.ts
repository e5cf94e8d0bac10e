import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sql, type Kysely } from 'kysely';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { NulCharacterError } from './driver.js';
import { openDatabase } from './open.js';
import type { Database } from './schema.js';

describe('the database', () => {
  let folder: string;
  let db: Kysely<Database>;

  beforeEach(async () => {
    folder = mkdtempSync(path.join(tmpdir(), 'reed-gate-test-'));
    db = await openDatabase(path.join(folder, 'deep', 'test.sqlite'));
  });

  afterEach(async () => {
    await db.destroy();
    rmSync(folder, { recursive: true });
  });

  const insertVector = (text: string, vector: Uint8Array) =>
    db.insertInto('vector').values({ text, encoder: 'e', vector }).execute();

  it('makes its folder, keeps a write-ahead log and minds references', async () => {
    const pragma = async (name: string) =>
      Object.values((await sql.raw<Record<string, unknown>>(`pragma ${name}`).execute(db)).rows[0]!)[0];
    expect(await pragma('journal_mode')).toBe('wal');
    expect(await pragma('foreign_keys')).toBe(1);
    expect(await pragma('synchronous')).toBe(2);
    const orphan = db
      .insertInto('intent')
      .values({ bot_id: 99, place: 0, name: 'a', description: null, form: null, reply: null, desk: null });
    await expect(orphan.execute()).rejects.toThrow(/FOREIGN KEY/);
  });

  it('gives blobs back as the bytes they were', async () => {
    const bytes = new Uint8Array([0, 1, 254, 255]);
    await insertVector('a', bytes);
    const row = await db.selectFrom('vector').select('vector').executeTakeFirstOrThrow();
    expect(row.vector).toBeInstanceOf(Uint8Array);
    expect([...row.vector]).toEqual([...bytes]);
  });

  it('takes part of a larger buffer for a blob', async () => {
    await insertVector('a', new Uint8Array([9, 9, 1, 2, 9]).subarray(2, 4));
    expect([...(await db.selectFrom('vector').select('vector').executeTakeFirstOrThrow()).vector]).toEqual([1, 2]);
  });

  it('takes truth values for 0 and 1', async () => {
    const rows = await sql<{ yes: number; no: number }>`select ${true} as yes, ${false} as no`.execute(db);
    expect(rows.rows).toEqual([{ yes: 1, no: 0 }]);
  });

  it('refuses a NUL character in a sentence instead of cutting the text short', async () => {
    await expect(insertVector('a\0b', new Uint8Array())).rejects.toThrow(NulCharacterError);
    expect(await db.selectFrom('vector').selectAll().execute()).toEqual([]);
  });

  it('undoes a whole transaction when a part of it fails', async () => {
    const work = db.transaction().execute(async (transaction) => {
      await transaction
        .insertInto('vector')
        .values({ text: 'kept?', encoder: 'e', vector: new Uint8Array() })
        .execute();
      throw new Error('half way');
    });
    await expect(work).rejects.toThrow('half way');
    expect(await db.selectFrom('vector').selectAll().execute()).toEqual([]);
  });

  it('is opened again with all it held', async () => {
    await insertVector('kept', new Uint8Array([7]));
    await db.destroy();
    db = await openDatabase(path.join(folder, 'deep', 'test.sqlite'));
    expect(await db.selectFrom('vector').select('text').execute()).toEqual([{ text: 'kept' }]);
  });
});
