import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Kysely } from 'kysely';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AT, contextOf } from '../../../tests/context.js';
import { teaShop } from '../../../tests/teaShop.js';
import type { TestLine } from '../../core/formats/testFile.js';
import type { SlotValue } from '../../core/recognise/value.js';
import type { Walkthrough } from '../../core/converse/walkthrough.js';
import type { LastTrials, TrialWish } from '../../core/contract/trial.js';
import { emptyBot } from '../../core/bot/document.js';
import type { BotEvent } from '../../core/contract/events.js';
import { assemble, type Application } from '../application.js';
import type { Context } from '../context.js';
import { openDatabase } from '../database/open.js';
import type { PersonSaid } from '../../core/contract/try.js';
import type { Database } from '../database/schema.js';
import { listPoints } from '../repositories/history.js';
import { readJob } from '../repositories/jobs.js';
import { findModel } from '../repositories/models.js';
import { writeBotFile } from '../../core/formats/botFile.js';
import { findVectors } from '../repositories/vectors.js';
import {
  createTestSet,
  lastTestRun,
  listTestSets,
  readTestLines,
  runAfterEdits,
  type TestLineChange,
} from '../repositories/tests.js';
import { deleteState, listStates, readState } from '../repositories/states.js';
import { addWalkthroughs, listWalkthroughs } from '../repositories/walkthroughs.js';
import { trialsView } from '../views/trials.js';
import type { BotService } from './bots.js';
import { ConversationService } from './conversations.js';
import type { ModelService } from './models.js';
import { namedAs } from '../../core/text/named.js';

const me = contextOf('me');
const go = { overOthers: false };
const english = () => teaShop((draft) => (draft['languages'] = ['en']));

const said = (one: PersonSaid) => ({ said: one, clientId: null });

const addTestSet = (bots: BotService, id: number, name: string, lines: TestLine[]) =>
  bots.bringInTestSet(me, id, name, lines.map((line) => JSON.stringify(line)).join('\n'));

const addWalkthroughsTo = (bots: BotService, id: number, walkthroughs: Walkthrough[]) =>
  bots.bringInWalkthroughs(me, id, JSON.stringify(walkthroughs));

describe('the services, with real workers and a real database', () => {
  let db: Kysely<Database>;
  let app: Application;
  let models: ModelService;
  let bots: BotService;
  const folder = mkdtempSync(path.join(tmpdir(), 'reed-gate-services-'));
  const reported: unknown[] = [];
  const parts = (own: unknown[] = reported) => ({
    log: pino({ level: 'silent' }),
    models: path.join(folder, 'models'),
    report: (error: unknown) => own.push(error),
  });

  beforeAll(async () => {
    db = await openDatabase(':memory:');
    app = assemble(db, parts());
    ({ models, bots } = app);
  });

  afterAll(async () => {
    await app.close();
    await db.destroy();
    rmSync(folder, { recursive: true });
    expect(reported).toEqual([]);
  });

  async function until(reached: () => unknown): Promise<void> {
    while (!reached()) await new Promise((resolve) => setTimeout(resolve, 10));
  }

  it('train a model for a new bot and keep it for the next start', async () => {
    const bot = await bots.get(await bots.create(me, english()));
    expect(models.state(bot.id)).toBeNull();
    await models.follow(bot);
    expect(models.state(bot.id)?.state).toBe('none');
    expect(models.state(4711)).toBeNull();
    const model = await models.answering(bot);
    expect(model.revision).toBe(1);
    await models.current(bot);
    expect(models.state(bot.id)).toMatchObject({ state: 'current', revision: 1, fault: null });
    expect((await findModel(db, bot.id))?.revision).toBe(1);
    const next = assemble(db, parts());
    await next.models.follow(bot);
    expect(next.models.state(bot.id)).toMatchObject({ state: 'current', revision: 1 });
    await next.close();
  });

  it('teach a bot anew whose model file is gone, damaged or of another version', async () => {
    const bot = await bots.get(await bots.create(me, english()));
    await models.current(bot);
    const { file } = (await findModel(db, bot.id))!;
    const whole = readFileSync(path.join(folder, 'models', file));
    const flipped = Buffer.from(whole);
    flipped[whole.length - 1000]! ^= 1;
    for (const bytes of [null, Buffer.from('no model'), whole.subarray(0, whole.length - 100), flipped]) {
      if (bytes) writeFileSync(path.join(folder, 'models', file), bytes);
      else rmSync(path.join(folder, 'models', file));
      const next = assemble(db, parts());
      await next.models.follow(bot);
      expect(next.models.state(bot.id)?.state).toBe('none');
      expect((await next.models.current(bot)).revision).toBe(1);
      await next.close();
      expect(readFileSync(path.join(folder, 'models', file)).equals(whole)).toBe(true);
    }
  });

  it('keep vectors of work in bulk in the database, and of explanations nothing', async () => {
    const { encoding } = app;
    const told: number[] = [];
    const bulk = await encoding.vectorsOf(['cuppa please', 'brew', 'brew'], { progress: (done) => told.push(done) });
    expect(told).toEqual([0, 2]);
    expect([...bulk.keys()]).toEqual(['cuppa please', 'brew']);
    expect((await findVectors(db, ['cuppa please', 'brew'])).size).toBe(2);
    await encoding.vectorsOf(['fancy a brew'], { keep: false });
    expect((await findVectors(db, ['fancy a brew'])).size).toBe(0);
  });

  it('that are closed in the middle of a training report no fault', async () => {
    const bot = await bots.get(await bots.create(me, { ...english(), name: 'Cut short' }));
    const faults: unknown[] = [];
    const short = assemble(db, parts(faults));
    const answer = expect(short.models.answering(bot)).rejects.toThrow('The model could not be trained.');
    await new Promise((resolve) => setTimeout(resolve, 100));
    await short.close();
    await answer;
    expect(faults).toEqual([]);
  });

  it('answer by the last good model while a new one is taught, and say so', async () => {
    const id = await bots.create(me, english());
    await models.current(await bots.get(id));
    const edited = await bots.act(me, id, {
      do: 'addIntent',
      name: 'lost_property',
      description: 'The customer lost something',
    });
    expect(models.state(id)).toMatchObject({ state: 'catching up', revision: 1 });
    expect((await models.answering(edited)).revision).toBe(1);
    const current = await models.current(edited);
    expect(current.revision).toBe(2);
    const { ranking } = await models.recognise(edited, 'I lost something');
    expect(ranking.map(({ intent }) => intent)).toContain('lost_property');
  });

  it('do acts in the order they came, none lost', async () => {
    const id = await bots.create(me, english());
    const names = Array.from({ length: 12 }, (_, index) => `intent_${index}`);
    await Promise.all(names.map((name) => bots.act(me, id, { do: 'addIntent', name })));
    const { document, revision } = await bots.get(id);
    expect(document.intents.slice(3).map((intent) => intent.name)).toEqual(names);
    expect(revision).toBe(13);
    expect((await models.current(await bots.get(id))).revision).toBe(13);
  });

  it('go on after an act that was refused', async () => {
    const id = await bots.create(me, english());
    await expect(bots.act(me, id, { do: 'addIntent', name: '' })).rejects.toThrow(/Give the intent a name/);
    expect((await bots.act(me, id, { do: 'addIntent', name: 'fine' })).revision).toBe(2);
    expect((await bots.step(me, id, 'undo', go))?.label).toBe('add fine');
  });

  it('copy a bot under a name of its own', async () => {
    const id = await bots.create(me, { ...english(), name: 'Original' });
    const copies = [await bots.duplicate(me, id), await bots.duplicate(me, id)];
    const names = await Promise.all(copies.map(async (copy) => (await bots.get(copy)).document.name));
    expect(names).toEqual(['Original (copy)', 'Original (copy 2)']);
  });

  it('take a conversation further turn by turn, and back', async () => {
    const bot = await bots.get(await bots.create(me, english()));
    const conversations = new ConversationService(db, models);
    const { id, state } = await conversations.start(me, bot);
    expect(state.lastSaid).toEqual([{ text: 'Hello, how can I help?' }]);
    await conversations.say(me, bot, id, said({ type: 'choice', intent: 'order_tea' }));
    const second = await conversations.say(me, bot, id, said({ type: 'text', text: 'three mint tea' }));
    expect(second?.state.open?.values).toMatchObject({ amount: 3, tea: 'mint tea' });
    expect(second?.turn).toMatchObject({ said: { type: 'text', text: 'three mint tea' }, revision: 1 });
    expect(await conversations.takeBack(me, bot, id, 1)).toBe(true);
    expect((await conversations.get(me, bot, id))?.state.open?.values).toEqual({});
    expect(await conversations.say(me, bot, 999, said({ type: 'noInput' }))).toBeNull();
  });

  it('take turns that come at once one after another, and a turn that is sent twice once', async () => {
    const bot = await bots.get(await bots.create(me, teaShop()));
    const conversations = new ConversationService(db, models);
    const { id } = await conversations.start(me, bot);
    const at = Array.from({ length: 8 }, (_, index) =>
      conversations.say(me, bot, id, { said: { type: 'text', text: `la ${index}` }, clientId: `turn ${index % 6}` }),
    );
    await Promise.all(at);
    const turns = (await conversations.get(me, bot, id))!.turns;
    expect(turns.map(({ position }) => position)).toEqual([0, 1, 2, 3, 4, 5]);
    expect(turns.map(({ said }) => (said.type === 'text' ? said.text : ''))).toEqual(
      [0, 1, 2, 3, 4, 5].map((n) => `la ${n}`),
    );
  });

  it('give every form that is completed a number of its own', async () => {
    const bot = await bots.get(await bots.create(me, teaShop()));
    const conversations = new ConversationService(db, models);
    const references: string[] = [];
    for (const { id } of [await conversations.start(me, bot), await conversations.start(me, bot)]) {
      for (let order = 0; order < 2; order++) {
        await conversations.say(me, bot, id, said({ type: 'choice', intent: 'cancel_order' }));
        await conversations.say(me, bot, id, said({ type: 'text', text: 'T-1234' }));
        const done = await conversations.say(me, bot, id, said({ type: 'text', text: 'too much tea' }));
        for (const act of done!.turn.acts) if (act.act === 'complete') references.push(act.reference);
      }
    }
    expect(references).toHaveLength(4);
    expect(new Set(references).size).toBe(4);
  });

  it('bring in a large bot as work that can be stopped, and then nothing of it is left', async () => {
    const large = english();
    large.name = 'Large';
    large.intents[0]!.utterances = Array.from({ length: 5000 }, (_, at) => ({
      id: `n${at}`,
      text: `${at}`,
      marks: [],
    }));
    const source = writeBotFile(large, 'json');
    const stopped = await bots.bringIn(me, source);
    expect(stopped.view).toMatchObject({ kind: 'import', state: 'running', total: expect.any(Number) as number });
    await expect(bots.get(stopped.view.botId)).rejects.toThrow('There is no such bot.');
    expect(app.jobs.stop(stopped.view.botId, stopped.view.id)).toBe(true);
    await expect(stopped.finished).rejects.toThrow('The work was stopped.');
    expect(stopped.view.state).toBe('stopped');
    expect((await bots.list()).map(({ name }) => name)).not.toContain('Large');
    const whole = await bots.bringIn(me, source);
    await whole.finished;
    expect(whole.view).toMatchObject({ state: 'done', done: whole.view.total });
    expect((await bots.get(whole.view.botId)).document.intents[0]!.utterances).toHaveLength(5000);
    await bots.delete(me, whole.view.botId);
  });

  it('copy a bot with its tests, and let tests follow a slot and an intent that are called otherwise', async () => {
    const first = await bots.create(me, teaShop());
    const line = { text: 'two mint tea', intent: 'order_tea', slots: [{ slot: 'amount', start: 0, end: 3 }] };
    await addTestSet(bots, first, 'hand', [line]);
    const walkthrough = { name: 'w', turns: [{ user: 'x' }], expect: { slots: namedAs({ amount: 2 }) } };
    await addWalkthroughsTo(bots, first, [walkthrough]);
    const id = await bots.duplicate(me, first);
    const [set] = await listTestSets(db, id);
    await bots.act(me, id, { do: 'renameSlot', slot: 's1', to: 'packets' });
    await bots.act(me, id, { do: 'changeIntent', name: 'order_tea', to: { name: 'buy' } });
    const lines = () => readTestLines(db, id, set!.id);
    expect(await lines()).toEqual([{ ...line, intent: 'buy', slots: [{ slot: 'packets', start: 0, end: 3 }] }]);
    expect((await listWalkthroughs(db, id))[0]!.walkthrough.expect.slots).toEqual({ packets: 2 });
    await bots.step(me, id, 'undo', go);
    await bots.step(me, id, 'undo', go);
    expect(await lines()).toEqual([line]);
    expect((await listWalkthroughs(db, id))[0]!.walkthrough).toEqual(walkthrough);
    expect((await listWalkthroughs(db, first))[0]!.walkthrough).toEqual(walkthrough);
  });

  it('let tests follow a value that is called otherwise, and back', async () => {
    const id = await bots.create(me, teaShop());
    const line = {
      text: 'mint tea',
      intent: 'order_tea',
      slots: [{ slot: 'tea', start: 0, end: 8, value: 'mint tea' }],
    };
    await addTestSet(bots, id, 'hand', [line]);
    const walkthrough = {
      name: 'w',
      turns: [{ user: 'x' }],
      expect: { slots: namedAs<SlotValue>({ tea: ['green tea', 'mint tea'], way: 'mint tea' }) },
    };
    await addWalkthroughsTo(bots, id, [walkthrough]);
    const [set] = await listTestSets(db, id);
    await bots.act(me, id, { do: 'changeValue', id: 'v3', to: { value: 'peppermint' } });
    const slots = async () => (await listWalkthroughs(db, id))[0]!.walkthrough.expect.slots;
    expect((await readTestLines(db, id, set!.id))![0]!.slots![0]!.value).toBe('peppermint');
    expect(await slots()).toEqual({ tea: ['green tea', 'peppermint'], way: 'mint tea' });
    await bots.step(me, id, 'undo', go);
    expect(await readTestLines(db, id, set!.id)).toEqual([line]);
    expect(await slots()).toEqual(walkthrough.expect.slots);
  });

  it('undo what was done last, whatever it was', async () => {
    const id = await bots.create(me, teaShop());
    await addTestSet(bots, id, 'hand', [{ text: 'a', intent: 'order_tea' }]);
    const [set] = await listTestSets(db, id);
    await bots.addTestLines(me, id, set!.id, [{ text: 'b', intent: null }]);
    await addWalkthroughsTo(bots, id, [{ name: 'w', turns: [{ user: 'x' }], expect: {} }]);
    const [walkthrough] = await listWalkthroughs(db, id);
    await bots.deleteWalkthrough(me, id, walkthrough!.id);
    await bots.deleteTestSet(me, id, set!.id);
    const conversations = new ConversationService(db, models);
    const talk = await conversations.start(me, await bots.get(id));
    expect(await bots.deleteConversation(me, id, talk.id)).toBe(true);
    expect(await bots.deleteConversation(me, id, talk.id)).toBe(false);
    expect(await conversations.get(me, await bots.get(id))).toBeNull();
    expect([await listTestSets(db, id), await listWalkthroughs(db, id)]).toEqual([[], []]);
    const labels: string[] = [];
    for (let step = await bots.step(me, id, 'undo', go); step; step = await bots.step(me, id, 'undo', go))
      labels.push(step.label);
    expect((await conversations.get(me, await bots.get(id)))?.id).toBe(talk.id);
    expect(labels).toEqual([
      `delete conversation ${talk.id}`,
      'delete the test set hand',
      'delete the walkthrough w',
      'add 1 walkthrough',
      'add “b” to a test set',
      'add the test set hand',
    ]);
    expect([await listTestSets(db, id), await listWalkthroughs(db, id)]).toEqual([[], []]);
    expect(await bots.deleteTestSet(me, id, set!.id)).toBe(false);
    const lines = [{ text: 'b', intent: 'nothing' }];
    await expect(bots.addTestLines(me, id, set!.id, lines)).rejects.toThrow(/no intent/);
    expect(await bots.addTestLines(me, id, set!.id, [{ text: 'b' }])).toBeNull();
  });

  it('make test sets by hand and out of utterances, and change their lines', async () => {
    const id = await bots.create(me, teaShop());
    const set = await bots.newTestSet(me, id, 'by hand');
    expect(await readTestLines(db, id, set)).toEqual([]);
    const ids = await bots.addTestLines(me, id, set, [{ text: 'a' }, { text: 'b' }, { text: 'c', intent: null }]);
    const change = (numbers: number[], to: TestLineChange) =>
      bots.changeTestLines(me, id, set, { numbers, change: to });
    await change(ids!.slice(0, 2), { intent: 'order_tea' });
    // Its number stays, so that the next change need not wait for what the one before gave.
    await change([ids![0]!], { style: 'short', tags: { channel: 'chat', source: 'shop' } });
    const slots = [{ slot: 'tea', start: 0, end: 5, value: 'green' }];
    await change([ids![0]!], { text: 'green please', slots, tags: { source: null } });
    // Two values told at once: neither takes the other back.
    const two = [slots[0]!, { slot: 'amount', start: 6, end: 12 }];
    await change([ids![0]!], { text: 'green please', slots: two });
    await Promise.all([
      change([ids![0]!], { value: { place: 0, value: 'black' } }),
      change([ids![0]!], { value: { place: 1, value: '1' } }),
    ]);
    expect((await readTestLines(db, id, set))![0]!.slots?.map(({ value }) => value)).toEqual(['black', '1']);
    for (let at = 0; at < 3; at++) await bots.step(me, id, 'undo', go);
    await bots.deleteTestLines(me, id, set, [ids![1]!]);
    const line = { text: 'green please', intent: 'order_tea', slots, style: 'short', tags: { channel: 'chat' } };
    expect(await readTestLines(db, id, set)).toEqual([line, { text: 'c', intent: null }]);
    for (let at = 0; at < 3; at++) await bots.step(me, id, 'undo', go);
    expect(await readTestLines(db, id, set)).toMatchObject([
      { text: 'a', intent: 'order_tea' },
      { text: 'b', intent: 'order_tea' },
      { text: 'c', intent: null },
    ]);
    await change([ids![0]!], { tags: { channel: 'chat' }, style: 'short' });
    await change([ids![0]!], { tags: { channel: null }, style: null });
    expect((await readTestLines(db, id, set))![0]).toEqual({ text: 'a', intent: 'order_tea' });
    expect(await change([9999], { intent: null })).toBe(true);
    expect(await bots.changeTestLines(me, id, set + 99, { numbers: ids!, change: {} })).toBe(false);
    expect(await bots.deleteTestLines(me, id, set + 99, [1])).toBe(false);
    const before = (await bots.get(id)).document;
    const aside = await bots.setAside(me, id, { name: 'aside', share: 0.3, seed: 1 });
    const lines = (await readTestLines(db, id, aside))!;
    const taught = (await bots.get(id)).document.intents.flatMap(({ utterances }) =>
      utterances.map(({ text }) => text),
    );
    expect(lines.length).toBeGreaterThan(0);
    for (const { text } of lines) expect(taught).not.toContain(text);
    expect(taught.length + lines.length).toBe(before.intents.flatMap(({ utterances }) => utterances).length);
    await expect(bots.setAside(me, id, { name: 'more', share: 0.05, seed: 1 })).rejects.toThrow(/utterances to spare/);
  });

  it('explain a message with the model that answers, as it was read', async () => {
    const bot = await bots.get(await bots.create(me, english()));
    const text = 'plese cancel my order';
    const explanation = await models.explain(bot, text);
    expect(explanation.recognition).toEqual(await models.recognise(bot, text));
    expect(explanation.words.map((word) => word.text)).toEqual(['plese', 'cancel', 'my', 'order']);
    expect(explanation.nearest[0]).toMatchObject({ intent: 'cancel_order', utterance: 'u13', text: 'cancel my order' });
  });

  it('tell screens what happens, who did it, and when the model is there', async () => {
    const id = await bots.create(me, english());
    await models.current(await bots.get(id));
    const heard: BotEvent[] = [];
    let closed = false;
    const leave = app.events.listen(
      id,
      { person: 'me', window: 'left' },
      (event) => heard.push(event),
      () => (closed = true),
    );
    const add = (name: string, context: Context) => bots.act(context, id, { do: 'addIntent', name });
    await add('a', { ...me, window: 'left' });
    await add('b', { ...me, window: 'right' });
    await add('c', contextOf('sue'));
    await until(() => models.state(id)?.settled);
    const acts = heard.flatMap((event) => (event.type === 'act' ? [event] : []));
    expect(acts.map(({ acts: number, label, by }) => [number, label, by])).toEqual([
      [1, 'add a', 'this window'],
      [2, 'add b', 'you'],
      [3, 'add c', 'somebody else'],
    ]);
    expect(heard.filter(({ type }) => type === 'model').at(-1)).toMatchObject({
      model: { state: 'current', revision: 4, settled: true },
    });
    leave();
    await add('d', me);
    expect(heard.filter(({ type }) => type === 'act')).toHaveLength(3);
    expect([app.events.isWatched(id), closed]).toEqual([false, false]);
  });

  it('run walkthroughs with each new model', async () => {
    const id = await bots.create(me, english());
    await addWalkthroughs(db, id, [
      { name: 'hours', turns: [{ user: 'what are your opening hours' }], expect: { outcome: 'completed' } },
      { name: 'wrong', turns: [{ user: 'what are your opening hours' }], expect: { outcome: 'cancelled' } },
    ]);
    await models.current(await bots.get(id));
    await until(() => models.state(id)?.settled);
    expect(models.walkthroughs(id)?.map((result) => result.passed)).toEqual([true, false]);
    expect(models.state(id)).toMatchObject({ state: 'current', settled: true });
  });

  async function finished(botId: number, id: number) {
    for (;;) {
      const job = (await app.jobs.get(botId, id))!;
      if (job.state !== 'running') return job;
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  }

  describe('trials', () => {
    it('of every kind come to an end, and the last of each is kept', async () => {
      const bot = await bots.get(await bots.create(me, english()));
      const lines = [{ text: 'some tea for me', intent: 'order_tea' }];
      const set = await createTestSet(db, bot.id, { name: 'tea', lines }, AT);
      const wishes: TrialWish[] = [
        { kind: 'cross-validation', repeats: 1 },
        { kind: 'learning curve' },
        { kind: 'noise', set, strength: 1 },
        { kind: 'customers', conversations: 6, seed: 2 },
      ];
      for (const wish of wishes) {
        const started = await app.trials.start(bot, wish);
        expect((await app.trials.start(bot, wish)).id).toBe(started.id);
        expect(await finished(bot.id, started.id)).toMatchObject({ state: 'done', kind: wish.kind });
      }
      const trials: LastTrials = {};
      for (const { kind } of wishes) Object.assign(trials, (await trialsView(app, bot.id, kind)).trials);
      expect((await trialsView(app, bot.id, 'walkthroughs')).trials).toEqual({});
      expect(trials['cross-validation']!.result).toMatchObject({ folds: 5, repeats: 1 });
      expect(trials['learning curve']!.result.points).toHaveLength(4);
      expect(trials.noise!.result).toMatchObject({ set: { id: set, name: 'tea' }, lines: 1 });
      expect(trials.customers!.result.conversations).toHaveLength(6);
      expect(trials.customers).toMatchObject({ revision: bot.revision, settings: { seed: 2, conversations: 6 } });
      // With the same seed it is the same, to the digit.
      const again = await app.trials.start(bot, wishes[0]!);
      await finished(bot.id, again.id);
      expect((await trialsView(app, bot.id, null)).trials['cross-validation']!.result).toEqual(
        trials['cross-validation']!.result,
      );
    });

    it('are refused where there is nothing to try', async () => {
      const bot = await bots.get(await bots.create(me, emptyBot('Empty')));
      await expect(app.trials.start(bot, { kind: 'cross-validation' })).rejects.toThrow('Two intents');
      await expect(app.trials.start(bot, { kind: 'noise' })).rejects.toThrow('test set');
    });

    it('stop when told to, and keep nothing', async () => {
      const bot = await bots.get(await bots.create(me, english()));
      const { id } = await app.trials.start(bot, { kind: 'cross-validation', repeats: 20 });
      expect(app.jobs.stop(bot.id, id)).toBe(true);
      expect((await finished(bot.id, id)).state).toBe('stopped');
      expect((await trialsView(app, bot.id, null)).trials['cross-validation']).toBeNull();
    });
  });

  describe('test runs', () => {
    const lines = Array.from({ length: 70 }, (_, index) => ({
      text: `what are your opening hours on day ${index}`,
      intent: 'opening_hours',
    }));

    it('read every line and keep the measures', async () => {
      const bot = await bots.get(await bots.create(me, english()));
      const set = await createTestSet(
        db,
        bot.id,
        { name: 'hours', lines: [...lines, { text: 'no idea', intent: null }] },
        AT,
      );
      const started = (await app.testRuns.start(bot, set))!;
      expect(started).toMatchObject({ state: 'running', total: 71 });
      expect((await app.testRuns.start(bot, set))!.id).toBe(started.id);
      const job = await finished(bot.id, started.id);
      expect(job).toMatchObject({ state: 'done', done: 71 });
      const run = (await lastTestRun(db, bot.id, set))!;
      expect(run.id).toBe(job.result);
      expect(run.evaluation).toMatchObject({ inScope: 70, outOfScope: 1 });
      expect(run.evaluation.accuracy).toBe(run.results.filter((line) => line.expected === line.predicted).length / 70);
      expect(await readJob(db, started.id)).toMatchObject({ state: 'done', result: run.id });
    });

    it('read with a state of the bot that was kept, and compare with the bot as it is', async () => {
      const id = await bots.create(me, english());
      const lines = [{ text: 'what do you charge for postage abroad', intent: 'postage' }];
      const set = await createTestSet(db, id, { name: 'postage', lines }, AT);
      const state = await bots.keepState(me, id, { name: 'before' });
      await bots.act(me, id, { do: 'addIntent', name: 'postage', description: 'What it costs to send something' });
      const text = 'how much is postage to another country';
      await bots.act(me, id, { do: 'addUtterances', intent: 'postage', utterances: [text] });
      const bot = await bots.get(id);
      const read = async (which?: number) => {
        const { id: job } = (await app.testRuns.start(bot, set, { state: which, tell: true }))!;
        expect((await finished(id, job)).state).toBe('done');
        return { run: (await lastTestRun(db, id, set))!, message: (await app.jobs.get(id, job))!.message };
      };
      const before = await read(state);
      expect(before.run).toMatchObject({ state: 'before', evaluation: { accuracy: 0 } });
      const after = await read();
      expect(after.run).toMatchObject({ state: null, revision: bot.revision, evaluation: { accuracy: 1 } });
      expect(after.message).toContain('1 mended, 0 broken');
      expect(await app.testRuns.start(bot, set, { state: state + 1 })).toBeNull();
      expect(await listStates(db, id)).toMatchObject([{ name: 'before' }]);
      expect(await deleteState(db, id + 1, state)).toBe(false);
      expect(await deleteState(db, id, state)).toBe(true);
      expect(await readState(db, id, state)).toBeNull();
    });

    it('keep a bot as it was at any point of its history', async () => {
      const id = await bots.create(me, english());
      const addIntent = async (by: Context, name: string) =>
        (await bots.act(by, id, { do: 'addIntent', name })).document;
      const named = async (before: number) => {
        const state = await bots.keepState(me, id, { name: `before ${before}`, before });
        return (await readState(db, id, state))!;
      };
      const start = (await bots.get(id)).document;
      const one = await addIntent(me, 'one');
      const two = await addIntent(contextOf('sue'), 'two');
      await bots.act(me, id, { do: 'changeIntent', name: 'one', to: { name: 'first' } });
      const three = await addIntent(me, 'three');
      const points = await listPoints(db, id);
      expect(points.map(({ number }) => number)).toEqual([4, 3, 2, 1]);
      expect((await named(3)).document).toEqual(two);
      expect((await named(2)).document).toEqual(one);
      expect(await named(1)).toMatchObject({ before: points[3]!.label, document: start });

      // The other's act is taken back and done again: it comes last now.
      await bots.step(contextOf('sue'), id, 'undo', go);
      expect((await named(1)).document).toEqual(start);
      await bots.step(contextOf('sue'), id, 'redo', go);
      expect((await listPoints(db, id)).map(({ number }) => number)).toEqual([2, 4, 3, 1]);
      const withoutOther = (await named(2)).document.intents.map(({ name }) => name);
      expect(withoutOther).toEqual(three.intents.map(({ name }) => name).filter((name) => name !== 'two'));
      expect((await named(1)).document).toEqual(start);

      await bots.step(me, id, 'undo', go);
      await expect(named(4)).rejects.toThrow('That act has been taken back or forgotten since. Choose another.');
      expect((await bots.get(id)).document.intents.map(({ name }) => name)).toContain('two');
    });

    it('run by themselves after an edit session, where that is wished', async () => {
      const own = assemble(db, { ...parts(), quiet: 50 });
      const id = await own.bots.create(me, english());
      const set = await createTestSet(db, id, { name: 'hours', lines: lines.slice(0, 3) }, AT);
      await own.models.current(await own.bots.get(id));
      expect(await runAfterEdits(db, id + 1, { id: set, afterEdits: true })).toBe(false);
      expect(await runAfterEdits(db, id, { id: set, afterEdits: true })).toBe(true);
      await own.bots.act(me, id, { do: 'addIntent', name: 'more' });
      await expect.poll(() => lastTestRun(db, id, set), { timeout: 20_000 }).not.toBeNull();
      expect((await lastTestRun(db, id, set))!.revision).toBe((await own.bots.get(id)).revision);
      await own.close();
    });

    it('stop when told to, and leave no half run behind', async () => {
      const bot = await bots.get(await bots.create(me, english()));
      const fresh = lines.map((line, index) => ({ ...line, text: `${line.text} or ${index + 1000}` }));
      const set = await createTestSet(db, bot.id, { name: 'hours', lines: fresh }, AT);
      const { id } = (await app.testRuns.start(bot, set))!;
      expect(app.jobs.stop(bot.id + 1, id)).toBe(false);
      expect(app.jobs.stop(bot.id, id)).toBe(true);
      expect((await finished(bot.id, id)).state).toBe('stopped');
      expect(app.jobs.stop(bot.id, id)).toBe(false);
      expect(await lastTestRun(db, bot.id, set)).toBeNull();
      expect(await app.testRuns.start(bot, 12345)).toBeNull();
    });
  });
});
