import { readFileSync } from 'node:fs';
import type { Kysely } from 'kysely';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { BotAct } from '../../core/bot/acts/index.js';
import { countingIds } from '../../../tests/acting.js';
import { AT } from '../../../tests/context.js';
import { applyAct } from '../../core/bot/acts/index.js';
import { teaShop } from '../../../tests/teaShop.js';
import { startConversation } from '../../core/converse/state.js';
import { readBotFile } from '../../core/formats/botFile.js';
import { measure, measureHeldOut } from '../../core/measure/evaluate.js';
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
  StaleError,
  stepHistory,
  type StoredBot,
} from './bots.js';
import { addTurn, createConversation, readConversation, takeBackTurns, turnSentAs } from './conversations.js';
import { beginJob, endJob, endUnfinishedJobs, readJob } from './jobs.js';
import { findModel, keepModel } from './models.js';
import {
  addTestLines,
  copyTestLines,
  createTestSet,
  lastTestRun,
  listTestRuns,
  listTestSets,
  readTestLines,
  readTestRun,
  saveTestRun,
} from './tests.js';
import { findVectors, keepVectors } from './vectors.js';
import { addWalkthroughs, listWalkthroughs } from './walkthroughs.js';

const BY = { actor: 'me', at: AT };
const newId = countingIds();

let db: Kysely<Database>;

beforeEach(async () => {
  db = await openDatabase(':memory:');
});

afterEach(() => db.destroy());

async function act(bot: StoredBot, one: BotAct, by = BY): Promise<StoredBot> {
  return saveAct(db, bot, { act: one, done: applyAct(bot.document, one, { newId }) }, by);
}

/** Takes a step of the history that must be possible. */
async function step(bot: StoredBot, direction: 'undo' | 'redo', by = BY): Promise<{ bot: StoredBot; label: string }> {
  const result = await stepHistory(db, bot, by, { direction, overOthers: false });
  if (!result?.done) throw new Error(`It was not done: ${JSON.stringify(result)}`);
  return result;
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
    const acts: BotAct[] = [
      {
        do: 'addUtterances',
        intent: 'order_tea',
        after: null,
        utterances: ['get me <tea>mint tea</tea>', 'tea & cake &lt;3'],
      },
      { do: 'addIntent', name: 'complain', description: 'Something is wrong' },
      { do: 'deleteIntents', names: ['opening_hours'] },
      { do: 'renameSlot', slot: 's1', to: 'packets' },
      { do: 'changeEntity', name: 'tea', to: { name: 'leaf', misspellings: false } },
      { do: 'changeValue', id: 'v1', to: { value: 'green', synonyms: ['sencha'] } },
      { do: 'deleteValues', ids: ['v2'] },
      { do: 'addForm', name: 'complaint', intent: 'complain' },
      { do: 'addSlot', form: 'complaint', id: 'what1', name: 'what', entity: 'leaf', required: false, prompts: [] },
      { do: 'changeSlot', slot: 'what1', to: { entity: 'size', when: { '==': [1, 1] } } },
      { do: 'moveSlot', slot: 's1', by: 1 },
      { do: 'moveUtterances', rows: [{ id: 'u13', was: 'cancel my order' }], to: 'complain' },
      { do: 'addUtterances', intent: 'complain', after: 'u13', utterances: ['it broke', 'it is cold'] },
      { do: 'addUtterances', intent: 'complain', after: 'u13', utterances: ['it leaks'] },
      { do: 'deleteSlot', slot: 'what1' },
      { do: 'changeForm', name: 'complaint', to: { name: 'grumble', done: 'Noted.' } },
      { do: 'addDesk', name: 'back_room' },
      { do: 'changeDesk', name: 'back_room', to: { description: 'Sorts things out' } },
      { do: 'changeNoMatch', to: { tries: 2, desk: 'back_room' } },
      { do: 'changeSettings', to: { name: 'Tea house' } },
      { do: 'changeGate', to: { accept: 0.7, ask: 0.2, lead: 0.05 } },
      { do: 'changeGate', to: { costs: { wrongAct: 20 } } },
      { do: 'deleteForm', name: 'cancellation' },
    ];
    for (const one of acts) {
      bot = await act(bot, one);
      expect((await loadBot(db, bot.id)).document, one.do).toEqual(bot.document);
    }
    expect(bot.revision).toBe(1 + acts.length);
  });

  it('undo and do again, one act at a time, also after a restart', async () => {
    const first = await loadBot(db, await createBot(db, teaShop(), AT));
    const second = await act(first, { do: 'addIntent', name: 'complain' });
    const third = await act(second, { do: 'deleteUtterances', rows: [{ id: 'u4', was: 'order some tea' }] });
    expect(await historyState(db, first.id, 'me')).toEqual({
      undo: { label: 'delete 1 utterance of order_tea', own: true },
      redo: null,
    });
    const undone = await step(await loadBot(db, first.id), 'undo');
    expect(undone.bot.document).toEqual(second.document);
    const twice = await step(undone.bot, 'undo');
    expect(twice.bot.document).toEqual(first.document);
    expect((await loadBot(db, first.id)).document).toEqual(first.document);
    expect(await stepHistory(db, twice.bot, BY, { direction: 'undo', overOthers: false })).toBeNull();
    const again = await step(twice.bot, 'redo');
    expect(again).toMatchObject({ label: 'add complain', bot: { document: second.document } });
    const further = await step(again.bot, 'redo');
    expect(further.bot.document).toEqual(third.document);
    expect((await loadBot(db, first.id)).document).toEqual(third.document);
  });

  it('forget what was undone when something else is done', async () => {
    const first = await loadBot(db, await createBot(db, teaShop(), AT));
    const second = await act(first, { do: 'addIntent', name: 'complain' });
    const undone = await step(second, 'undo');
    const other = await act(undone.bot, { do: 'addIntent', name: 'praise' });
    expect(await historyState(db, first.id, 'me')).toEqual({ undo: { label: 'add praise', own: true }, redo: null });
    expect(await stepHistory(db, other, BY, { direction: 'redo', overOthers: false })).toBeNull();
  });

  it('undo the own acts of a person, and what somebody else did only when that was asked', async () => {
    const SUE = { actor: 'sue', at: AT };
    const start = await loadBot(db, await createBot(db, teaShop(), AT));
    let bot = await act(start, { do: 'addIntent', name: 'complain' });
    bot = await act(bot, { do: 'addIntent', name: 'praise' }, SUE);
    // The own act goes though the other came after it.
    bot = (await step(bot, 'undo')).bot;
    expect(bot.document.intents.map(({ name }) => name).slice(3)).toEqual(['praise']);
    expect((await loadBot(db, bot.id)).document).toEqual(bot.document);
    bot = (await step(bot, 'redo')).bot;
    bot = await act(bot, { do: 'addUtterances', intent: 'complain', utterances: ['it broke'] }, SUE);
    // It would take along what Sue has put into it since.
    expect(await stepHistory(db, bot, BY, { direction: 'undo', overOthers: false })).toEqual({
      done: false,
      label: 'add 1 utterance to complain',
      inTheWay: true,
    });
    const wiped = await stepHistory(db, bot, BY, { direction: 'undo', overOthers: true });
    if (!wiped?.done) throw new Error('it was not done');
    expect(wiped.bot.document.intents.map(({ name }) => name).slice(3)).toEqual(['praise']);
    const back = (await step(wiped.bot, 'redo')).bot;
    expect(back.document).toEqual(bot.document);
    // Somebody with nothing of their own is asked first, and may do it again.
    const ANN = { actor: 'ann', at: AT };
    expect(await historyState(db, bot.id, 'ann')).toMatchObject({ undo: { own: false } });
    expect(await stepHistory(db, back, ANN, { direction: 'undo', overOthers: false })).toMatchObject({
      done: false,
      inTheWay: false,
    });
    const asked = await stepHistory(db, back, ANN, { direction: 'undo', overOthers: true });
    if (!asked?.done) throw new Error('it was not done');
    expect(asked.bot.document.intents.at(-1)!.utterances).toEqual([]);
    expect((await historyState(db, bot.id, 'sue')).redo).toBeNull();
    expect((await step(asked.bot, 'redo', ANN)).bot.document).toEqual(back.document);
  });

  it('refuse to write over what another server has written', async () => {
    const first = await loadBot(db, await createBot(db, teaShop(), AT));
    await act(first, { do: 'addIntent', name: 'complain' });
    await expect(act(first, { do: 'addIntent', name: 'praise' })).rejects.toThrow(StaleError);
    expect((await loadBot(db, first.id)).document.intents.at(-1)!.name).toBe('complain');
  });

  it('keep rows in their order however often rows are put between two', async () => {
    let bot = await loadBot(db, await createBot(db, teaShop(), AT));
    for (let round = 0; round < 40; round++) {
      bot = await act(bot, { do: 'addUtterances', intent: 'opening_hours', after: 'u7', utterances: [`now ${round}`] });
    }
    expect((await loadBot(db, bot.id)).document).toEqual(bot.document);
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

  it('are told of without being opened', async () => {
    const botId = await createBot(db, teaShop(), AT);
    const heldOut = measureHeldOut([{ intent: 'order_tea', predicted: null }], ['order_tea']);
    await keepModel(db, botId, { revision: 1, file: 'a.model', heldOut, trainedAt: AT });
    const stored = { revision: 2, file: 'b.model', heldOut, trainedAt: AT };
    await keepModel(db, botId, stored);
    expect(await findModel(db, botId)).toEqual(stored);
    expect(await findModel(db, 99)).toBeNull();
    await db.updateTable('model').set({ held_out: '{"version":0}' }).execute();
    expect(await findModel(db, botId)).toBeNull();
  });
});

describe('long work', () => {
  it('that was going on when the program ended is told as cut short', async () => {
    const botId = await createBot(db, teaShop(), AT);
    const plan = { botId, kind: 'test run' as const, subject: 3, total: 70, startedAt: AT };
    const [first, second] = [await beginJob(db, plan), await beginJob(db, plan)];
    const done = { ...(await readJob(db, first))!, state: 'done' as const, done: 70, result: 5 };
    await endJob(db, done, AT);
    expect(await endUnfinishedJobs(db, AT)).toBe(1);
    expect(await readJob(db, first)).toMatchObject({ state: 'done', done: 70, result: 5, message: null });
    expect(await readJob(db, second)).toMatchObject({ state: 'cut short', subject: 3, total: 70 });
    expect((await readJob(db, second))!.message).toMatch(/ended while this ran/);
    expect(await endUnfinishedJobs(db, AT)).toBe(0);
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
    const set = await createTestSet(db, botId, { name: 'first', lines }, AT);
    const ids = await addTestLines(db, set, [{ text: 'd', intent: 'y' }]);
    expect(await readTestLines(db, botId, set)).toEqual(lines);
    await saveShown(db, botId, { shown: { part: 'test_line', ids, hidden: false }, label: 'add' }, BY);
    expect(await readTestLines(db, botId, set)).toEqual([...lines, { text: 'd', intent: 'y' }]);
    expect(await listTestSets(db, botId)).toEqual([{ id: set, name: 'first', lines: 4, afterEdits: false }]);
  });

  it('keep the place of a line that is changed, and give it back with undo', async () => {
    const botId = await createBot(db, teaShop(), AT);
    const set = await createTestSet(db, botId, { name: 'first', lines }, AT);
    const other = await createTestSet(db, botId, { name: 'second', lines }, AT);
    const ids = (await db.selectFrom('test_line').select('id').where('test_set_id', '=', set).execute()).map(
      (row) => row.id,
    );
    const { copies, lines: of } = await copyTestLines(db, set, { numbers: ids.slice(1), change: { intent: 'z' } });
    expect(of).toEqual(ids.slice(1));
    const shown = { part: 'test_line' as const, ids: copies, hidden: false, instead: of };
    await saveShown(db, botId, { shown, label: 'change 2 test lines' }, BY);
    const changed = [lines[0], { text: 'b', intent: 'z' }, { text: 'c', intent: 'z' }];
    expect(await readTestLines(db, botId, set)).toEqual(changed);
    expect(await readTestLines(db, botId, other)).toEqual(lines);
    const retold = await copyTestLines(db, set, { numbers: [ids[0]!], change: { text: 'A' } });
    await saveShown(
      db,
      botId,
      { shown: { part: 'test_line', ids: retold.copies, hidden: false, instead: retold.lines }, label: 'retell' },
      BY,
    );
    // What was marked in another text is not in this one.
    expect((await readTestLines(db, botId, set))![0]).toEqual({
      text: 'A',
      intent: 'x',
      now: '2026-03-04T09:30',
      style: 'plain',
    });
    const bot = await loadBot(db, botId);
    await step(bot, 'undo');
    await step(bot, 'undo');
    expect(await readTestLines(db, botId, set)).toEqual(lines);
    await step(bot, 'redo');
    expect(await readTestLines(db, botId, set)).toEqual(changed);
    // A line is known by its number, whatever row stands in its place.
    const again = await copyTestLines(db, set, { numbers: ids.slice(1), change: { intent: null } });
    expect(again.lines).toEqual(copies);
    expect(await copyTestLines(db, other, { numbers: ids.slice(1), change: { intent: null } })).toEqual({
      copies: [],
      lines: [],
    });
  });

  it('belong to their bot', async () => {
    const [own, other] = [await createBot(db, teaShop(), AT), await createBot(db, teaShop(), AT)];
    const set = await createTestSet(db, own, { name: 'first', lines }, AT);
    expect(await readTestLines(db, other, set)).toBeNull();
    await saveShown(db, other, { shown: { part: 'test_set', ids: [set], hidden: true }, label: 'delete' }, BY);
    expect(await readTestLines(db, own, set)).toHaveLength(3);
  });

  it('keep their runs, and take them along when deleted', async () => {
    const botId = await createBot(db, teaShop(), AT);
    const set = await createTestSet(db, botId, { name: 'first', lines }, AT);
    const evaluation = measure([], ['x']);
    const plan = { testSetId: set, ranAt: AT, reader: 'model 1', state: null, evaluation, results: [] };
    const first = await saveTestRun(db, { ...plan, revision: 1 });
    const id = await saveTestRun(db, { ...plan, revision: 2 });
    expect(await lastTestRun(db, botId)).toEqual({ ...plan, id, revision: 2 });
    const { results: _, ...head } = plan;
    expect(await listTestRuns(db, botId, set, 9)).toEqual([
      { ...head, id, revision: 2 },
      { ...head, id: first, revision: 1 },
    ]);
    expect(await listTestRuns(db, botId, set, 1)).toHaveLength(1);
    expect(await readTestRun(db, botId, { testSetId: set, run: first })).toMatchObject({ id: first, revision: 1 });
    expect(await readTestRun(db, botId + 1, { testSetId: set, run: first })).toBeNull();
    await saveShown(db, botId, { shown: { part: 'test_set', ids: [set], hidden: true }, label: 'delete the set' }, BY);
    expect(await lastTestRun(db, botId)).toBeNull();
    const bot = await loadBot(db, botId);
    expect((await step(bot, 'undo')).label).toBe('delete the set');
    expect((await lastTestRun(db, botId))?.id).toBe(id);
    await step(bot, 'redo');
    expect(await listTestSets(db, botId)).toEqual([]);
  });
});

describe('conversations and walkthroughs', () => {
  it('can be taken back to before any turn', async () => {
    const botId = await createBot(db, teaShop(), AT);
    const start = startConversation('T-1');
    const id = await createConversation(db, botId, { person: 'me', startedAt: AT, state: start });
    const states = [start, { ...start, turns: 1 }, { ...start, turns: 2 }];
    for (const position of [0, 1]) {
      const trace = { reader: 'r', state: null, why: 'w', recognition: null, before: {}, after: {} };
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
    expect(await readConversation(db, botId, { person: 'me' }, { last: 9 })).toMatchObject({
      id,
      state: { turns: 2 },
      turns: [{ position: 0 }, { position: 1 }],
    });
    await takeBackTurns(db, id, 1);
    expect(await readConversation(db, botId, { person: 'me', id }, { last: 9 })).toMatchObject({
      state: { turns: 1 },
      turns: [{ position: 0 }],
    });
    expect(await readConversation(db, botId + 1, { person: 'me', id }, { last: 9 })).toBeNull();
    expect([await turnSentAs(db, id, 'c0'), await turnSentAs(db, id, 'c1')]).toMatchObject([{ position: 0 }, null]);
  });

  it('are kept in order and deleted by their bot alone', async () => {
    const botId = await createBot(db, teaShop(), AT);
    const walkthrough = { name: 'a', turns: [{ user: 'x' }], expect: {} };
    await addWalkthroughs(db, botId, [walkthrough, { ...walkthrough, name: 'b' }]);
    const [first] = await listWalkthroughs(db, botId);
    const gone = { part: 'walkthrough' as const, ids: [first!.id], hidden: true };
    await saveShown(db, await createBot(db, teaShop(), AT), { shown: gone, label: 'delete' }, BY);
    expect((await listWalkthroughs(db, botId)).map((item) => item.walkthrough.name)).toEqual(['a', 'b']);
    await saveShown(db, botId, { shown: gone, label: 'delete' }, BY);
    expect((await listWalkthroughs(db, botId)).map((item) => item.walkthrough.name)).toEqual(['b']);
  });
});
