import { readFileSync } from 'node:fs';
import { Ajv } from 'ajv';
import { describe, expect, it } from 'vitest';
import { parse } from 'yaml';
import { shapeFaults } from '../bot/botShape.js';
import { teaShop } from '../../../tests/teaShop.js';
import { readBotFile, writeBotFile } from './botFile.js';
import { publishedSchemas } from './published.js';

const nursery = readFileSync('demo/nursery/bot.yaml', 'utf8');
const published = new Ajv({ unicodeRegExp: true, strict: false }).compile(
  JSON.parse(readFileSync('docs/bot-file.schema.json', 'utf8')) as object,
);

describe('bot files', () => {
  it.each(['json', 'yaml'] as const)('come back the same after export and import as %s', (format) => {
    for (const source of [nursery, writeBotFile(teaShop(), 'json')]) {
      const first = readBotFile(source);
      if (!first.ok) throw new Error(JSON.stringify(first.faults));
      expect(readBotFile(writeBotFile(first.document, format))).toEqual({ ok: true, document: first.document });
    }
  });

  it('tell the line of a slip in YAML', () => {
    const result = readBotFile('reedGate: 1\nname: "unclosed\nintents: []\n');
    expect(result.ok).toBe(false);
    expect(!result.ok && result.faults[0]!.path).toMatch(/^line \d+, column \d+$/);
  });

  it('are refused with a sentence where they use aliases', () => {
    const result = readBotFile('reedGate: 1\nname: &a x\nregion: *a\n');
    expect(!result.ok && result.faults[0]!.message).toMatch(/aliases/);
  });

  it('are refused where a key stands twice', () => {
    const result = readBotFile('reedGate: 1\nname: a\nname: b\n');
    expect(!result.ok && result.faults[0]!.message).toMatch(/unique/i);
  });

  it.each(['', '   ', 'just words', '[]', '42'])('that hold no bot (%j) are refused', (source) => {
    expect(readBotFile(source).ok).toBe(false);
  });
});

describe('the published JSON Schemas', () => {
  it.each(Object.entries(publishedSchemas()))('in %s are what the shapes give (npm run schemas)', (file, text) => {
    expect(readFileSync(file, 'utf8')).toBe(text);
  });

  it('takes the demo bot', () => {
    expect(published(parse(nursery))).toBe(true);
  });

  const base = { reedGate: 1, name: 'A bot' };
  it.each<[string, unknown]>([
    ['the least there can be', base],
    ['another version', { ...base, reedGate: 2 }],
    ['no name', { reedGate: 1 }],
    ['an unknown key', { ...base, intets: [] }],
    ['a value as a text', { ...base, entities: [{ name: 'e', kind: 'list', values: ['a'] }] }],
    ['a value without its main form', { ...base, entities: [{ name: 'e', kind: 'list', values: [{ synonyms: [] }] }] }],
    ['an unknown kind', { ...base, entities: [{ name: 'e', kind: 'lists' }] }],
    ['an intent without utterances', { ...base, intents: [{ name: 'i' }] }],
    ['a name with a space', { ...base, intents: [{ name: 'i i' }] }],
    ['an empty utterance', { ...base, intents: [{ name: 'i', utterances: [''] }] }],
    ['a text by language', { ...base, greeting: { en: ['a', 'b'], es: 'c' } }],
    ['a text that is a number', { ...base, greeting: 3 }],
    ['a level out of range', { ...base, gate: { accept: 1.5 } }],
    ['tries that are no whole number', { ...base, noMatch: { tries: 1.5 } }],
    ['a slot without an entity', { ...base, forms: [{ name: 'f', slots: [{ name: 's' }] }] }],
    [
      'a condition that is a text',
      { ...base, forms: [{ name: 'f', slots: [{ name: 's', entity: 'number', when: 'x' }] }] },
    ],
    ['a region in small letters', { ...base, region: 'gb' }],
    ['an empty list', { ...base, intents: [] }],
    ['a name that is too long', { ...base, name: 'x'.repeat(101) }],
    ['a part that is null', { ...base, gate: null }],
    ['another answer to a no', { ...base, forms: [{ name: 'f', onNo: 'stay' }] }],
    ['a wording that is no text', { ...base, texts: { help: { en: [3] } } }],
    ['a text that the engine does not have', { ...base, texts: { helps: 'a' } }],
  ])('agrees with the program about %s', (_, value) => {
    expect(published(value)).toBe(shapeFaults(value).length === 0);
  });
});
