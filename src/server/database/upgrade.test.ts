import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sql, type Kysely } from 'kysely';
import Libsql from 'libsql';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { countingIds } from '../../../tests/acting.js';
import { AT } from '../../../tests/context.js';
import { teaShop } from '../../../tests/teaShop.js';
import { applyAct } from '../../core/bot/acts/index.js';
import { fileOf } from '../../core/bot/file.js';
import { missingIn } from '../../core/notes/index.js';
import { countMissing, listBots, loadBot, saveAct, stepHistory } from '../repositories/bots.js';
import { readConversation } from '../repositories/conversations.js';
import { findModel } from '../repositories/models.js';
import { lastTestRun, listTestSets, readTestLines } from '../repositories/tests.js';
import { listWalkthroughs } from '../repositories/walkthroughs.js';
import { openDatabase } from './open.js';
import type { Database } from './schema.js';

describe('a database written before rows had ids', () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'reed-gate-upgrade-'));
  const file = path.join(folder, 'reed-gate.sqlite');
  let db: Kysely<Database>;

  beforeAll(async () => {
    const old = new Libsql(file);
    old.exec(readFileSync('tests/fixtures/before_rows.sql', 'utf8'));
    old.close();
    db = await openDatabase(file);
  });

  afterAll(async () => {
    await db.destroy();
    rmSync(folder, { recursive: true });
  });

  it('opens with its bots, row for row', async () => {
    // The level of a new bot was another one then.
    const wanted = fileOf({ ...teaShop(), gate: { accept: 0.86, ask: 0.3, lead: 0.1 } });
    wanted.intents[1]!.utterances.splice(1, 0, 'open on <way>collect</way> Sundays &amp; holidays');
    for (const [id, name] of [
      [1, 'Tea shop'],
      [2, 'Second shop'],
    ] as const) {
      const { document, revision } = await loadBot(db, id);
      expect(fileOf(document)).toEqual({ ...wanted, name });
      expect(revision).toBe(2);
      const ids = document.intents.flatMap(({ utterances }) => utterances.map((utterance) => utterance.id));
      expect(new Set(ids).size).toBe(18);
    }
    expect((await listBots(db)).map(({ utterances }) => utterances)).toEqual([18, 18]);
    expect((await listBots(db)).map(({ missing }) => missing)).toEqual([null, null]);
    await sql`update bot set languages = '[' where id = 2`.execute(db);
    const unread: number[] = [];
    await countMissing(db, (_, id) => unread.push(id));
    expect(unread).toEqual([2]);
    await sql`update bot set languages = '["en"]' where id = 2`.execute(db);
    await countMissing(db, (_, id) => unread.push(id));
    expect(unread).toEqual([2]);
    const { document } = await loadBot(db, 1);
    expect((await listBots(db)).map(({ missing }) => missing)).toEqual([missingIn(document), missingIn(document)]);
    expect((await sql`pragma foreign_key_check`.execute(db)).rows).toEqual([]);
  });

  it('opens with its tests, conversations and walkthroughs', async () => {
    const [set] = await listTestSets(db, 2);
    expect(set).toMatchObject({ name: 'hand', lines: 3 });
    expect(await readTestLines(db, 2, set!.id)).toEqual([
      { text: 'two mint tea', intent: 'order_tea', slots: [{ slot: 'amount', start: 0, end: 3 }] },
      { text: 'no idea', intent: null },
      { text: 'when do you open', intent: 'opening_hours' },
    ]);
    expect((await lastTestRun(db, 2))?.revision).toBe(2);
    expect((await listWalkthroughs(db, 1)).map(({ walkthrough }) => walkthrough.name)).toEqual(['hours']);
    expect(await readConversation(db, 1, { person: 'anybody' }, { last: 9 })).toMatchObject({
      name: null,
      state: { turns: 1 },
      turns: [{ said: { text: 'hello' } }],
    });
    expect(await findModel(db, 1)).toBeNull();
  });

  it('goes on from there', async () => {
    const bot = await loadBot(db, 1);
    const one = { do: 'renameSlot' as const, slot: bot.document.forms[0]!.slots[0]!.id, to: 'packets' };
    const by = { actor: 'me', at: AT };
    const after = await saveAct(db, bot, { act: one, done: applyAct(bot.document, one, { newId: countingIds() }) }, by);
    expect((await loadBot(db, 1)).document).toEqual(after.document);
    expect(await stepHistory(db, after, by, { direction: 'undo', overOthers: false })).toMatchObject({ done: true });
    expect((await loadBot(db, 1)).document).toEqual(bot.document);
    expect(await stepHistory(db, after, by, { direction: 'undo', overOthers: false })).toBeNull();
  });
});
