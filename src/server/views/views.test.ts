import type { Kysely } from 'kysely';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AT, contextOf } from '../../../tests/context.js';
import { teaShop } from '../../../tests/teaShop.js';
import { measure } from '../../core/measure/evaluate.js';
import { assemble, type Application } from '../application.js';
import { openDatabase } from '../database/open.js';
import type { Database } from '../database/schema.js';
import { NoSuchBotError } from '../repositories/bots.js';
import { beginJob, endJob, endUnfinishedJobs, readJob } from '../repositories/jobs.js';
import { createTestSet, saveTestRun } from '../repositories/tests.js';
import { addWalkthroughs } from '../repositories/walkthroughs.js';
import { botFrame } from './bot.js';
import { gateView } from './gate.js';
import { proveView } from './prove.js';
import { sayView } from './say.js';
import { entitiesView, teachView } from './teach.js';
import { tryView } from './try.js';

const me = contextOf('me');

let db: Kysely<Database>;
let app: Application;
let id: number;

beforeAll(async () => {
  db = await openDatabase(':memory:');
  app = assemble(db, {
    log: pino({ level: 'silent' }),
    models: null,
    report: (error) => {
      throw error;
    },
  });
  const shop = teaShop((draft) => {
    (draft['intents'] as { utterances: string[] }[])[0]!.utterances.push('a tin of <tea>nettle tea</tea>');
    (draft['forms'] as { slots: { prompts: string[] }[] }[])[1]!.slots[1]!.prompts = [];
  });
  id = await app.bots.create(me, shop);
  await addWalkthroughs(db, id, [
    { name: 'hours', turns: [{ user: 'opening times' }], expect: { outcome: 'completed' } },
  ]);
  await app.models.current(await app.bots.get(id));
  while (!app.models.state(id)?.settled) await new Promise((resolve) => setTimeout(resolve, 10));
});

afterAll(async () => {
  await app.close();
  await db.destroy();
});

const wantedOf = (set: number) => ({ set: String(set), run: null, against: null, show: null as string | null });

describe('the frame of every screen', () => {
  it('carries the live figure of each stage', async () => {
    const frame = await botFrame(app, me, id);
    const heldOut = await app.models.predictions(await app.bots.get(id));
    const right = heldOut.filter((line) => line.predicted === line.intent).length;
    expect(frame.figures.teach).toBe(right / heldOut.length);
    expect(frame.figures.say).toBe(1);
    expect(frame.figures.try).toEqual({ passing: 1, all: 1 });
    expect(frame.figures.prove).toBeNull();
    expect(frame.model.state).toBe('current');
    expect(frame.history).toEqual({ undo: null, redo: null });
  });

  it('does not wait for the first training', async () => {
    const fresh = await app.bots.create(me, teaShop());
    const frame = await botFrame(app, me, fresh);
    expect(frame.model).toMatchObject({ state: 'none', revision: null });
    expect(frame.figures).toMatchObject({ teach: null, try: null });
    await app.models.current(await app.bots.get(fresh));
  });

  it('is refused for a bot that is not there', async () => {
    await expect(botFrame(app, me, 999)).rejects.toThrow(NoSuchBotError);
  });
});

describe('Teach', () => {
  it('gives each row its held-out score, and what the gate would make of it', async () => {
    const { current, intents } = await teachView(app, id, { intent: 'opening_hours', row: null });
    const heldOut = await app.models.predictions(await app.bots.get(id));
    expect(intents.map((intent) => intent.utterances)).toEqual([7, 6, 5]);
    expect(current?.ids.split(' ')).toHaveLength(6);
    for (const row of current!.page) {
      const prediction = heldOut.find((line) => line.utterance === row.id)!;
      expect(row.heldOut).toMatchObject({ predicted: prediction.predicted, confidence: prediction.ownConfidence });
      if (row.heldOut!.decision === 'accept') expect(prediction.predicted).toBe('opening_hours');
    }
  });

  it('opens the first intent where none is named, and offers the slots of its form for marking', async () => {
    const { current } = await teachView(app, id, { intent: null, row: null });
    expect(current).toMatchObject({
      name: 'order_tea',
      form: 'order',
      markable: ['amount', 'tea', 'size', 'way', 'address'],
    });
    expect(current!.notes.find(({ check }) => check === 'unknown value')?.text).toMatch(
      /“nettle tea” is no value of tea/,
    );
  });

  it('offers entities where there is no form', async () => {
    expect((await teachView(app, id, { intent: 'opening_hours', row: null })).current!.markable).toEqual(
      expect.arrayContaining(['tea', 'order_no']),
    );
  });

  it('has nothing open in a bot without intents', async () => {
    const empty = await app.bots.create(me, { ...teaShop(), intents: [], name: 'Empty' });
    expect(await teachView(app, empty, { intent: 'gone', row: null })).toMatchObject({ current: null, intents: [] });
  });

  it('says which forms an entity serves', async () => {
    expect(await entitiesView(app, id, { entity: 'order_no', row: null })).toMatchObject({
      current: { kind: 'pattern' },
      usedBy: ['cancellation'],
    });
    expect((await entitiesView(app, id, { entity: null, row: null })).current?.name).toBe('tea');
  });
});

describe('Say', () => {
  it('shows what is missing and the conversation that the form gives', async () => {
    const { current, forms } = await sayView(app, id, 'cancellation');
    expect(forms.find((form) => form.name === 'cancellation')?.missing).toBe(true);
    expect(current?.notes.map((note) => note.text)).toContain('reason is required and has no prompt.');
    expect(current?.readThrough?.map((line) => line.text)).toContain('What is the reason?');
    expect(current?.stale).toBe(false);
  });

  it('says that the conversation is of before while the model catches up', async () => {
    const copy = await app.bots.duplicate(me, id);
    await app.models.current(await app.bots.get(copy));
    await app.bots.act(me, copy, { do: 'addIntent', name: 'praise' });
    expect((await sayView(app, copy, 'order')).current?.stale).toBe(true);
    await app.models.current(await app.bots.get(copy));
    expect((await sayView(app, copy, 'order')).current?.stale).toBe(false);
  });

  it('has no conversation for a form that no intent opens', async () => {
    const copy = await app.bots.duplicate(me, id);
    await app.bots.act(me, copy, { do: 'addForm', name: 'survey' });
    await app.models.current(await app.bots.get(copy));
    expect((await sayView(app, copy, 'survey')).current).toMatchObject({ readThrough: null, intents: [] });
  });

  it('offers the bot’s own entities before the built-in kinds', async () => {
    const { entities } = await sayView(app, id, null);
    expect(entities.slice(0, 3)).toEqual(['tea', 'size', 'way']);
    expect(entities).toContain('email');
  });
});

describe('Try and Prove', () => {
  it('show the latest conversation and the walkthroughs with their results', async () => {
    expect(await tryView(app, me, id, { wanted: null, all: false })).toMatchObject({
      conversation: null,
      greeting: 'Hello, how can I help?',
      walkthroughs: [{ name: 'hours', result: { passed: true } }],
    });
    await app.conversations.start(me, await app.bots.get(id));
    expect((await tryView(app, me, id, { wanted: null, all: false })).conversation?.turns).toEqual([]);
  });

  it('list what went wrong, sure and wrong first', async () => {
    const set = await createTestSet(db, id, { name: 'hand', lines: [{ text: 'a', intent: 'order_tea' }] }, AT);
    const line = {
      text: 'a',
      expected: 'order_tea',
      place: 2,
      expectedSlots: null,
      slots: [],
      predicted: 'opening_hours',
    };
    const results = [
      { ...line, decision: 'ask' as const, confidence: 0.5 },
      { ...line, decision: 'accept' as const, confidence: 0.7 },
      { ...line, decision: 'accept' as const, confidence: 0.9 },
      { ...line, predicted: 'order_tea', place: 1, decision: 'accept' as const, confidence: 0.9 },
    ];
    await saveTestRun(db, {
      testSetId: set,
      revision: 1,
      ranAt: AT,
      reader: null,
      state: null,
      evaluation: measure(results, ['order_tea']),
      results,
    });
    const { run, current } = await proveView(app, id, wantedOf(set));
    expect(current?.id).toBe(set);
    expect(run?.wrong.map((wrong) => [wrong.verdict, wrong.confidence])).toEqual([
      ['wrong and accepted', 0.9],
      ['wrong and accepted', 0.7],
      ['wrong and asked about', 0.5],
    ]);
    expect((await botFrame(app, me, id)).figures).toMatchObject({ prove: 0.25, gate: 0.5 });
    const gate = await gateView(app, id, String(set));
    expect(gate.sources.map(({ name }) => name)).toEqual(['hand', 'utterances, held out']);
    expect(gate.source).toMatchObject({ id: set, read: { at: AT, revision: 1 } });
    expect(gate.messages[0]).toEqual({
      text: 'a',
      expected: 'order_tea',
      top: [{ intent: 'opening_hours', confidence: 0.5 }],
    });
  });

  it('compare a run with the one before it, or with the one that is asked for, and give the sheet', async () => {
    const { intents } = (await app.bots.get(id)).document;
    const taught = intents[0]!.utterances[0]!.text;
    const lines = [{ text: 'a', intent: 'order_tea' }, { text: taught, intent: 'order_tea' }, { text: 'b' }];
    const set = await createTestSet(app.database, id, { name: 'compared', lines }, AT);
    const run = async (...predicted: string[]) => {
      const results = predicted.map((name, at) => ({
        text: `line ${at}`,
        expected: 'order_tea',
        predicted: name,
        place: 1,
        expectedSlots: null,
        slots: [],
        decision: 'accept' as const,
        confidence: 0.9,
      }));
      const evaluation = measure(results, ['order_tea']);
      const made = { testSetId: set, revision: 1, ranAt: AT, reader: 'r', state: null, evaluation, results };
      return saveTestRun(app.database, made);
    };
    const [first, second] = [await run('x', 'x', 'order_tea'), await run('order_tea', 'x', 'order_tea')];
    const third = await run('order_tea', 'order_tea', 'x');
    const view = await proveView(app, id, { ...wantedOf(set), show: 'lines' });
    expect(view.run?.id).toBe(third);
    expect(view.runs.map((one) => [one.id, one.accuracy])).toEqual([
      [third, 2 / 3],
      [second, 2 / 3],
      [first, 1 / 3],
    ]);
    expect(view.comparison).toMatchObject({ against: { id: second }, lines: 3, apart: 0 });
    expect(view.comparison?.mended).toEqual([{ text: 'line 1', expected: 'order_tea', predicted: 'order_tea' }]);
    expect(view.comparison?.broken).toEqual([{ text: 'line 2', expected: 'order_tea', predicted: 'x' }]);
    expect(view.sheet?.map(({ text, flag }) => [text, flag])).toEqual([
      ['a', null],
      [taught, 'taught'],
      ['b', 'no label'],
    ]);
    const older = await proveView(app, id, { ...wantedOf(set), run: String(second), against: String(third) });
    expect(older.comparison).toMatchObject({ against: { id: third } });
    expect((await proveView(app, id, { ...wantedOf(set), run: String(first) })).comparison).toBeNull();
  });

  it('set the gate by the utterances where no test was run', async () => {
    const { source, messages } = await gateView(app, id, 'utterances');
    expect(source).toEqual({ id: null, name: 'utterances, held out', read: null });
    const { intents } = (await app.bots.get(id)).document;
    expect(messages).toHaveLength(intents.reduce((sum, { utterances }) => sum + utterances.length, 0));
    for (const { expected, top } of messages) expect(top.map(({ intent }) => intent)).toContain(expected);
  });

  it('tell of a run that the end of the program cut short, until another has come to its end', async () => {
    const set = await createTestSet(db, id, { name: 'evening', lines: [{ text: 'a', intent: null }] }, AT);
    const job = { botId: id, kind: 'test run' as const, subject: set, total: 1, startedAt: AT };
    await beginJob(db, job);
    const told = async () => (await proveView(app, id, wantedOf(set))).unfinished?.state ?? null;
    expect(await told()).toBeNull();
    await endUnfinishedJobs(db, AT);
    expect(await told()).toBe('cut short');
    const again = (await readJob(db, await beginJob(db, job)))!;
    await endJob(db, { ...again, state: 'done' }, AT);
    expect(await told()).toBeNull();
  });

  it('are empty before anything was brought in', async () => {
    const other = await app.bots.create(me, { ...teaShop(), name: 'Another shop' });
    expect(await proveView(app, other, wantedOf(12))).toEqual({
      testSets: [],
      states: [],
      points: null,
      current: null,
      run: null,
      runs: [],
      comparison: null,
      sheet: null,
      unfinished: null,
    });
  });
});
