import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { findEntity, formOfIntent, type BotDocument } from '../bot/document.js';
import { incompleteForms, intentNotes } from '../notes/index.js';
import { readWalkthroughs } from './walkthroughFile.js';
import { readBotFile } from './botFile.js';
import { readTestFile, type TestLine } from './testFile.js';

const fold = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** What each demo bot must hold at the least. */
const DEMOS = [
  {
    folder: 'nursery',
    lines: 350,
    outOfScope: 60,
    linesAnIntent: 14,
    walkthroughs: 26,
    forms: ['plant_order', 'visit_booking'],
  },
  {
    folder: 'waste',
    lines: 200,
    outOfScope: 40,
    linesAnIntent: 10,
    walkthroughs: 18,
    forms: ['bulky_booking', 'missed_report'],
  },
];

describe.each(DEMOS)('the demo bot in $folder', (demo) => {
  let bot: BotDocument;
  let lines: TestLine[];

  beforeAll(() => {
    const result = readBotFile(readFileSync(`demo/${demo.folder}/bot.yaml`, 'utf8'));
    const tests = readTestFile(readFileSync(`demo/${demo.folder}/test.tsv`, 'utf8'));
    if (!result.ok || !tests.ok) throw new Error('the demo files have faults');
    bot = result.document;
    lines = tests.lines;
  });

  it('has at least sixteen intents of ten to twenty utterances, each described', () => {
    expect(bot.intents.length).toBeGreaterThanOrEqual(16);
    for (const intent of bot.intents) {
      expect(intent.utterances.length, intent.name).toBeGreaterThanOrEqual(10);
      expect(intent.utterances.length, intent.name).toBeLessThanOrEqual(20);
      expect(intent.description, intent.name).toMatch(/^(The customer|A business|Something)/);
    }
  });

  it('has its forms and desks, with nothing missing', () => {
    expect(incompleteForms(bot)).toEqual([]);
    expect(bot.forms.map((form) => form.name)).toEqual(expect.arrayContaining(demo.forms));
    expect(bot.desks.length).toBeGreaterThanOrEqual(3);
  });

  it('says no utterance twice and marks no word that its lists do not know', () => {
    for (const intent of bot.intents) {
      const found = [...intentNotes(bot, intent)].filter(
        (note) => note !== null && ['doubled', 'unknown value'].includes(note.check),
      );
      expect(found, intent.name).toEqual([]);
    }
  });

  it('has test lines of every style, a third plain, and many out of scope', () => {
    expect(lines.length).toBeGreaterThanOrEqual(demo.lines);
    expect(lines.filter((line) => line.intent === null).length).toBeGreaterThanOrEqual(demo.outOfScope);
    const share = (style: string) => lines.filter((line) => line.style === style).length / lines.length;
    expect(share('plain')).toBeGreaterThan(0.3);
    expect(share('plain')).toBeLessThan(0.4);
    for (const style of ['typo', 'long', 'terse', 'spoken']) expect(share(style), style).toBeGreaterThan(0.1);
  });

  it('tests every intent, and only intents that there are', () => {
    const names = new Set(bot.intents.map((intent) => intent.name));
    for (const line of lines) if (line.intent) expect(names.has(line.intent), line.text).toBe(true);
    for (const name of names)
      expect(lines.filter((line) => line.intent === name).length, name).toBeGreaterThanOrEqual(demo.linesAnIntent);
  });

  it('tests with no line that it teaches, nor the same line twice', () => {
    const taught = new Set(bot.intents.flatMap((intent) => intent.utterances.map((utterance) => fold(utterance.text))));
    expect(lines.filter((line) => taught.has(fold(line.text))).map((line) => line.text)).toEqual([]);
    expect(new Set(lines.map((line) => fold(line.text))).size).toBe(lines.length);
  });

  it('expects slots that the intent can hold, on whole words', () => {
    for (const line of lines) {
      for (const slot of line.slots ?? []) {
        const form = formOfIntent(bot, line.intent ?? '');
        const known = form?.slots.some((item) => item.name === slot.slot) ?? findEntity(bot, slot.slot) !== undefined;
        expect(known, `${line.text}: ${slot.slot}`).toBe(true);
        const around = (line.text[slot.start - 1] ?? ' ') + (line.text[slot.end] ?? ' ');
        expect(around, line.text).toMatch(/^[^\p{L}\p{N}][^\p{L}\p{N}]$/u);
      }
    }
  });

  it('has walkthroughs with an outcome to reach', () => {
    const result = readWalkthroughs(JSON.parse(readFileSync(`demo/${demo.folder}/walkthroughs.json`, 'utf8')));
    expect(result.ok && result.walkthroughs).toHaveLength(demo.walkthroughs);
    for (const { expect: wanted } of result.ok ? result.walkthroughs : []) expect(wanted.outcome).toBeDefined();
  });
});
