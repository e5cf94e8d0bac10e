import { readFileSync } from 'node:fs';
import { serialize } from 'node:v8';
import type { Kysely } from 'kysely';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { applyEdit, type Edit } from '../../core/bot/edit.js';
import { teaShop } from '../../../tests/teaShop.js';
import { startConversation } from '../../core/converse/state.js';
import { readBotFile } from '../../core/formats/botFile.js';
import { measure } from '../../core/measure/evaluate.js';
import { trainRecogniser } from '../../core/recognise/recogniser.js';
import { openDatabase } from '../database/open.js';
import type { Database } from '../database/schema.js';
import {
  createBot,
  historyState,
  listBots,
  loadBot,
  NoSuchBotError,
  saveAct,
  saveShown,
  setDeleted,
  stepHistory,
  type StoredBot,
} from './bots.js';
import { addTurn, createConversation, hasTurn, readConversation, takeBackTurns } from './conversations.js';
import { modelToBytes } from '../modelBytes.js';
import { loadModel, saveModel } from './models.js';
import { addTestLine, createTestSet, lastTestRun, listTestSets, readTestLines, saveTestRun } from './tests.js';
import { findVectors, keepVectors } from './vectors.js';
import { addWalkthroughs, listWalkthroughs } from './walkthroughs.js';

const AT = '2026-03-04T09:30:00.000Z';

let db: Kysely<Database>;

beforeEach(async () => {
  db = await openDatabase(':memory:');
});

afterEach(() => db.destroy());

async function act(bot: StoredBot, edit: Edit): Promise<StoredBot> {
  const { document, label } = applyEdit(bot.document, edit);
  return saveAct(db, bot, document, { label, at: AT });
}

describe('bots', () => {
  it('come back from the tables as the document they were', async () => {
    const nursery = readBotFile(readFileSync('demo/nursery/bot.yaml', 'utf8'));
    if (!nursery.ok) throw new Error('the demo bot has faults');
    for (const document of [nursery.document, teaShop()]) {
      const id = await createBot(db, document, AT);
      expect((await loadBot(db, id)).document).toEqual(document);
    }
  });

  it('keep every act: the tables always hold the document that was shown', async () => {
    let bot = await loadBot(db, await createBot(db, teaShop(), AT));
    const acts: Edit[] = [
      {
        do: 'addUtterances',
        intent: 'order_tea',
        at: 0,
        utterances: ['get me <tea>mint tea</tea>', 'tea & cake &lt;3'],
      },
      { do: 'addIntent', name: 'complain', description: 'Something is wrong' },
      { do: 'deleteIntents', names: ['opening_hours'] },
      { do: 'renameSlot', form: 'order', from: 'amount', to: 'packets' },
      { do: 'changeEntity', name: 'tea', to: { name: 'leaf', misspellings: false } },
      { do: 'changeValue', entity: 'leaf', value: 'green tea', to: { value: 'green', synonyms: ['sencha'] } },
      { do: 'deleteValues', entity: 'leaf', values: ['black tea'] },
      { do: 'addForm', name: 'complaint', intent: 'complain' },
      { do: 'addSlot', form: 'complaint', slot: { name: 'what', entity: 'leaf', required: false, prompts: [] } },
      { do: 'changeSlot', form: 'complaint', slot: 'what', to: { entity: 'size', when: { '==': [1, 1] } } },
      { do: 'moveSlot', form: 'order', slot: 'packets', by: 1 },
      { do: 'deleteSlot', form: 'complaint', slot: 'what' },
      { do: 'changeForm', name: 'complaint', to: { name: 'grumble', done: 'Noted.' } },
      { do: 'addDesk', name: 'back_room' },
      { do: 'changeDesk', name: 'back_room', to: { description: 'Sorts things out' } },
      { do: 'changeNoMatch', to: { tries: 2, desk: 'back_room' } },
      { do: 'changeSettings', to: { name: 'Tea house', gate: { accept: 0.7, ask: 0.2, lead: 0.05 } } },
      { do: 'deleteForm', name: 'cancellation' },
    ];
    for (const edit of acts) {
      bot = await act(bot, edit);
      expect((await loadBot(db, bot.id)).document, edit.do).toEqual(bot.document);
    }
    expect(bot.revision).toBe(1 + acts.length);
  });

  it('undo and do again, one act at a time, also after a restart', async () => {
    const first = await loadBot(db, await createBot(db, teaShop(), AT));
    const second = await act(first, { do: 'addIntent', name: 'complain' });
    const third = await act(second, {
      do: 'deleteUtterances',
      intent: 'order_tea',
      rows: [{ index: 3, was: 'order some tea' }],
    });
    expect(await historyState(db, first.id)).toEqual({ undo: 'delete 1 utterance of order_tea', redo: null });
    const undone = (await stepHistory(db, await loadBot(db, first.id), 'undo', AT))!;
    expect(undone.bot.document).toEqual(second.document);
    const twice = (await stepHistory(db, undone.bot, 'undo', AT))!;
    expect(twice.bot.document).toEqual(first.document);
    expect((await loadBot(db, first.id)).document).toEqual(first.document);
    expect(await stepHistory(db, twice.bot, 'undo', AT)).toBeNull();
    const again = (await stepHistory(db, twice.bot, 'redo', AT))!;
    expect(again).toMatchObject({ label: 'add complain', bot: { document: second.document } });
    const further = (await stepHistory(db, again.bot, 'redo', AT))!;
    expect(further.bot.document).toEqual(third.document);
  });

  it('forget what was undone when something else is done', async () => {
    const first = await loadBot(db, await createBot(db, teaShop(), AT));
    const second = await act(first, { do: 'addIntent', name: 'complain' });
    const undone = (await stepHistory(db, second, 'undo', AT))!;
    const other = await act(undone.bot, { do: 'addIntent', name: 'praise' });
    expect(await historyState(db, first.id)).toEqual({ undo: 'add praise', redo: null });
    expect(await stepHistory(db, other, 'redo', AT)).toBeNull();
  });

  it('make no history of an act that changes nothing', async () => {
    const bot = await loadBot(db, await createBot(db, teaShop(), AT));
    const same = await act(bot, { do: 'changeSettings', to: { name: bot.document.name } });
    expect(same.revision).toBe(bot.revision);
  });

  it('are deleted so that they can be brought back', async () => {
    const id = await createBot(db, teaShop(), AT);
    await setDeleted(db, id, AT);
    expect(await listBots(db)).toEqual([]);
    await expect(loadBot(db, id)).rejects.toThrow(NoSuchBotError);
    await setDeleted(db, id, null);
    expect(await listBots(db)).toMatchObject([{ id, name: 'Tea shop', intents: 3, utterances: 17, forms: 2 }]);
    await expect(setDeleted(db, 99, null)).rejects.toThrow(NoSuchBotError);
  });
});

describe('vectors and models', () => {
  it('are found by the exact text', async () => {
    await keepVectors(
      db,
      new Map([
        ['a', new Float32Array([0.25, -1])],
        ['A', new Float32Array([3])],
      ]),
    );
    await keepVectors(db, new Map([['a', new Float32Array([9])]]));
    const found = await findVectors(db, ['a', 'A', 'b']);
    expect([...found].map(([text, vector]) => [text, [...vector]])).toEqual(
      expect.arrayContaining([
        ['a', [0.25, -1]],
        ['A', [3]],
      ]),
    );
    expect(found.size).toBe(2);
  });

  it('come back the same', async () => {
    const document = teaShop();
    const botId = await createBot(db, document, AT);
    const model = trainRecogniser(document, new Map());
    const bytes = modelToBytes(model);
    await saveModel(db, botId, { revision: 1, document, trainedAt: AT }, bytes);
    await saveModel(db, botId, { revision: 2, document, trainedAt: AT }, bytes);
    expect(await loadModel(db, botId)).toEqual({ revision: 2, document, model, trainedAt: AT });
    expect(await loadModel(db, 99)).toBeNull();
  });

  it.each([
    ['of another version', serialize({ version: 0 })],
    ['damaged', new Uint8Array([1, 2, 3])],
  ])('count as none when they are %s', async (_, data) => {
    const document = teaShop();
    const botId = await createBot(db, document, AT);
    await db
      .insertInto('model')
      .values({ bot_id: botId, revision: 1, document: JSON.stringify(document), data, trained_at: AT })
      .execute();
    expect(await loadModel(db, botId)).toBeNull();
  });
});

describe('test sets', () => {
  const lines = [
    { text: 'a', intent: 'x', now: '2026-03-04T09:30', slots: [{ slot: 's', start: 0, end: 1 }], style: 'plain' },
    { text: 'b', intent: null },
    { text: 'c' },
  ];

  it('come back as they were brought in, and take further lines', async () => {
    const botId = await createBot(db, teaShop(), AT);
    const set = await createTestSet(db, botId, 'first', lines, AT);
    await addTestLine(db, set, { text: 'd', intent: 'y' });
    expect(await readTestLines(db, botId, set)).toEqual([...lines, { text: 'd', intent: 'y' }]);
    expect(await listTestSets(db, botId)).toEqual([{ id: set, name: 'first', lines: 4 }]);
  });

  it('belong to their bot', async () => {
    const [own, other] = [await createBot(db, teaShop(), AT), await createBot(db, teaShop(), AT)];
    const set = await createTestSet(db, own, 'first', lines, AT);
    expect(await readTestLines(db, other, set)).toBeNull();
    await saveShown(db, other, { part: 'test_set', ids: [set], hidden: true }, 'delete', AT);
    expect(await readTestLines(db, own, set)).toHaveLength(3);
  });

  it('keep their runs, and take them along when deleted', async () => {
    const botId = await createBot(db, teaShop(), AT);
    const set = await createTestSet(db, botId, 'first', lines, AT);
    const evaluation = measure([], ['x']);
    await saveTestRun(db, { testSetId: set, revision: 1, ranAt: AT, evaluation, results: [] });
    const id = await saveTestRun(db, { testSetId: set, revision: 2, ranAt: AT, evaluation, results: [] });
    expect(await lastTestRun(db, botId)).toEqual({
      id,
      testSetId: set,
      revision: 2,
      ranAt: AT,
      evaluation,
      results: [],
    });
    await saveShown(db, botId, { part: 'test_set', ids: [set], hidden: true }, 'delete the set', AT);
    expect(await lastTestRun(db, botId)).toBeNull();
    const bot = await loadBot(db, botId);
    expect((await stepHistory(db, bot, 'undo', AT))?.label).toBe('delete the set');
    expect((await lastTestRun(db, botId))?.id).toBe(id);
    await stepHistory(db, bot, 'redo', AT);
    expect(await listTestSets(db, botId)).toEqual([]);
  });
});

describe('conversations and walkthroughs', () => {
  it('can be taken back to before any turn', async () => {
    const botId = await createBot(db, teaShop(), AT);
    const start = startConversation('T-1');
    const id = await createConversation(db, botId, AT, start);
    const states = [start, { ...start, turns: 1 }, { ...start, turns: 2 }];
    for (const position of [0, 1]) {
      const trace = { reader: 'r', why: 'w', recognition: null, before: {}, after: {} };
      const turn = {
        position,
        said: { type: 'noInput' as const },
        says: [{ text: 'Sorry?' }],
        acts: [],
        trace,
        revision: 1,
      };
      await addTurn(db, id, turn, {
        before: states[position]!,
        after: states[position + 1]!,
        clientId: `c${position}`,
      });
    }
    expect(await readConversation(db, botId)).toMatchObject({
      id,
      state: { turns: 2 },
      turns: [{ position: 0 }, { position: 1 }],
    });
    await takeBackTurns(db, id, 1);
    expect(await readConversation(db, botId, id)).toMatchObject({ state: { turns: 1 }, turns: [{ position: 0 }] });
    expect(await readConversation(db, botId + 1, id)).toBeNull();
    expect([await hasTurn(db, id, 'c0'), await hasTurn(db, id, 'c1')]).toEqual([true, false]);
  });

  it('are kept in order and deleted by their bot alone', async () => {
    const botId = await createBot(db, teaShop(), AT);
    const walkthrough = { name: 'a', turns: [{ user: 'x' }], expect: {} };
    await addWalkthroughs(db, botId, [walkthrough, { ...walkthrough, name: 'b' }]);
    const [first] = await listWalkthroughs(db, botId);
    const gone = { part: 'walkthrough' as const, ids: [first!.id], hidden: true };
    await saveShown(db, await createBot(db, teaShop(), AT), gone, 'delete', AT);
    expect((await listWalkthroughs(db, botId)).map((item) => item.walkthrough.name)).toEqual(['a', 'b']);
    await saveShown(db, botId, gone, 'delete', AT);
    expect((await listWalkthroughs(db, botId)).map((item) => item.walkthrough.name)).toEqual(['b']);
  });
});
