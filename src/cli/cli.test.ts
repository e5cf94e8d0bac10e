import { mkdtempSync, rmSync, writeFileSync, mkdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { teaShop } from '../../tests/teaShop.js';
import { writeBotFile } from '../core/formats/botFile.js';
import { openDatabase } from '../server/database/open.js';
import { listBots, loadBot } from '../server/repositories/bots.js';
import { findModel } from '../server/repositories/models.js';
import { listTestSets, readTestLines } from '../server/repositories/tests.js';
import { listWalkthroughs } from '../server/repositories/walkthroughs.js';
import { databaseFile } from '../server/paths.js';
import { converseFile, showWalkthroughs } from './converse.js';
import { evaluateFiles, readCosts, showEvaluation } from './evaluate.js';
import { DEFAULT_COSTS } from '../core/bot/document.js';
import { loadBotFile, loadTestFile, loadWalkthroughFile, UsageError } from './files.js';
import { recogniseFile } from './recognise.js';
import { seedDemo } from './seed.js';

let folder: string;
const file = (name: string, text: string): string => {
  const whole = path.join(folder, name);
  writeFileSync(whole, text);
  return whole;
};

beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'reed-gate-cli-'));
});

afterAll(() => rmSync(folder, { recursive: true }));

const botFile = () => file('shop.yaml', writeBotFile(teaShop(), 'yaml'));
const walkthroughFile = () =>
  file(
    'walks.json',
    JSON.stringify([
      { name: 'hours', turns: [{ user: 'what are your opening hours' }], expect: { outcome: 'completed' } },
      { name: 'wrong', turns: [{ user: 'what are your opening hours' }], expect: { outcome: 'cancelled' } },
    ]),
  );

describe('files for the commands', () => {
  it('are refused with every fault and its path', () => {
    const broken = file(
      'broken.json',
      '{"reedGate": 1, "name": "x", "intents": [{"name": "a b"}, {"name": "c", "form": "d"}]}',
    );
    expect(() => loadBotFile(broken)).toThrow(UsageError);
    expect(() => loadBotFile(broken)).toThrow(/broken\.json cannot be read:\n {2}intents\[0\]\.name: "a b" is no name/);
    expect(() => loadTestFile(file('t.jsonl', '{"text":""}'))).toThrow(/line 1: "text" is missing or empty/);
    expect(() => loadWalkthroughFile(file('w.json', '[{"name":"a"}]'))).toThrow(/\[0\]\.turns: is missing/);
    expect(() => loadWalkthroughFile(file('x.json', '[{'))).toThrow(/is not JSON/);
  });

  it('that are not there are named', () => {
    expect(() => loadBotFile(path.join(folder, 'gone.yaml'))).toThrow(/gone\.yaml: there is no such file\./);
    expect(() => loadBotFile(folder)).toThrow(UsageError);
  });
});

describe('the commands', () => {
  it('recognise messages, each with the time that its line names', async () => {
    const dated = teaShop((draft) => {
      const [order] = draft['forms'] as [{ slots: unknown[] }];
      order.slots.push({
        name: 'day',
        entity: 'date',
        required: false,
        prompts: [],
      });
    });
    const bot = file('dated.json', writeBotFile(dated, 'json'));
    const messages = file(
      'in.jsonl',
      '{"text":"order tea for tomorrow","now":"2026-05-01T10:00"}\n{"text":"order tea for tomorrow"}\n',
    );
    const lines = (await recogniseFile(bot, messages, '2026-03-04T09:30')).map(
      (line) => JSON.parse(line) as { slots: { slot: string; value: string }[] },
    );
    expect(lines.map(({ slots }) => slots.find((slot) => slot.slot === 'day')?.value)).toEqual([
      '2026-05-02',
      '2026-03-05',
    ]);
  });

  it('evaluate and show the measures', async () => {
    const test = file(
      'test.csv',
      'text,intent,style\nwhat are your hours today,opening_hours,plain\nwhen do you close,opening_hours,plain\norder tea,order_tea,terse\norder tea,cancel_order,terse\ntell me a joke,,plain\n',
    );
    const told = await evaluateFiles(botFile(), test);
    expect(told.evaluation).toMatchObject({ inScope: 3, outOfScope: 1, accuracy: 2 / 3 });
    const shown = showEvaluation(told);
    expect(shown).toContain('4 lines: 3 in scope, 1 out of scope; 1 more were also taught and are left out');
    expect(shown).toMatch(/accuracy +0\.667/);
    expect(shown).toMatch(/cancel_order +1 +– +0\.000/);
    expect(shown).toMatch(/terse +0\.500 {2}of 2/);
  });

  it('evaluate against the bot of before, and recommend levels', async () => {
    const test = file(
      'lines.csv',
      'text,intent\nwhat are your hours today,opening_hours\nstop my order please,cancel_order\n',
    );
    const costs = readCosts('wrongAct=20, question=2');
    expect(costs).toEqual({ ...DEFAULT_COSTS, wrongAct: 20, question: 2 });
    const told = await evaluateFiles(botFile(), test, { compare: botFile(), costs });
    expect(told.comparison).toMatchObject({ lines: 2, mended: [], broken: [], chance: 1 });
    const { now, then, consequences } = told.recommendation!;
    expect(then).toBeLessThanOrEqual(now);
    const counted = (counts: Record<string, number>) => Object.values(counts).reduce((sum, count) => sum + count, 0);
    expect([counted(consequences.now), counted(consequences.then)]).toEqual([2, 2]);
    expect(told.recommendation!.mostAccepted.then).toBeLessThanOrEqual(now);
    const shown = showEvaluation(told);
    expect(shown).toContain('Of 2 lines 0 were mended and 0 broken');
    expect(shown).toMatch(/accepting most for less +accept 0\.\d\d/);
    expect(shown).toMatch(/recommended levels +accept 0\.\d\d, ask 0\.\d\d, lead 0\.\d\d/);
    expect(() => readCosts('wrongAkt=3')).toThrow(
      '--costs knows wrongAct, wrongForm, question, missed, outsideAct, not "wrongAkt"',
    );
    expect(() => readCosts('question=-1')).toThrow('question must be a number from 0 on, not "-1"');
    expect(() => readCosts('question')).toThrow(UsageError);
  });

  it('converse and show what kept a walkthrough from passing', async () => {
    const results = await converseFile(botFile(), walkthroughFile());
    expect(results.map((result) => result.passed)).toEqual([true, false]);
    const shown = showWalkthroughs(results);
    expect(shown).toContain('passed  hours: completed');
    expect(shown).toContain('it ended completed, not cancelled');
    expect(shown).toContain('› what are your opening hours');
    expect(shown.endsWith('1 of 2 passed')).toBe(true);
  });
});

describe('filling a fresh database', () => {
  it('brings in each bot of the folder with its tests, walkthroughs and a trained model', async () => {
    const demo = path.join(folder, 'demo');
    mkdirSync(path.join(demo, 'shop'), { recursive: true });
    mkdirSync(path.join(demo, 'notes'));
    writeFileSync(path.join(demo, 'shop', 'bot.yaml'), writeBotFile(teaShop(), 'yaml'));
    writeFileSync(path.join(demo, 'shop', 'test.tsv'), 'text\tintent\norder <tea>mint tea</tea>\torder_tea\n');
    writeFileSync(path.join(demo, 'shop', 'walkthroughs.json'), '[{"name":"a","turns":[{"user":"x"}],"expect":{}}]');
    const target = databaseFile(path.join(folder, 'data'));
    mkdirSync(path.dirname(target));
    const remarks: string[] = [];
    // Twice: what was there before is gone.
    for (let round = 0; round < 2; round++) await seedDemo(demo, target, (remark) => remarks.push(remark));
    expect(remarks).toEqual(['Tea shop: 3 intents', 'Tea shop: 3 intents']);
    const db = await openDatabase(target);
    const bots = await listBots(db);
    expect(bots).toHaveLength(1);
    const id = bots[0]?.id ?? 0;
    expect((await loadBot(db, id)).document).toEqual(teaShop());
    expect(await findModel(db, id)).toMatchObject({ revision: 1, file: `bot-${id}-1.model` });
    const [set] = await listTestSets(db, id);
    expect(await readTestLines(db, id, set?.id ?? 0)).toEqual([
      { text: 'order mint tea', intent: 'order_tea', slots: [{ slot: 'tea', start: 6, end: 14 }] },
    ]);
    expect(await listWalkthroughs(db, id)).toHaveLength(1);
    await db.destroy();
  });
});
