import { afterAll, describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import { writeBotFile } from '../../core/formats/botFile.js';
import { InputError } from '../errors.js';
import { FileThread } from './files.js';
import type { FileKind } from './read.js';

describe('files', () => {
  const files = new FileThread();

  afterAll(() => files.close());

  async function refused(kind: FileKind, source: string): Promise<InputError> {
    const error: unknown = await files.read(kind, source).catch((reason: unknown) => reason);
    expect(error).toBeInstanceOf(InputError);
    return error as InputError;
  }

  it('are read in a thread of their own', async () => {
    const shop = teaShop();
    expect(await files.read('bot', writeBotFile(shop, 'yaml'))).toEqual(shop);
    expect(await files.read('bot', writeBotFile(shop, 'json'))).toEqual(shop);
    expect(await files.read('tests', 'text\tintent\nhi\tgreeting')).toEqual([{ text: 'hi', intent: 'greeting' }]);
    expect(await files.read('walkthroughs', '[{"name":"a","turns":[{"user":"x"}],"expect":{}}]')).toHaveLength(1);
  });

  it('are written there too, as are acts read that are as large', async () => {
    const shop = teaShop();
    expect(await files.write(shop, 'yaml')).toBe(writeBotFile(shop, 'yaml'));
    const utterances = Array.from({ length: 10_000 }, (_, at) => `tea for ${at}`);
    const act = { do: 'addUtterances', intent: 'order_tea', utterances };
    expect(await files.readRequest('act', JSON.stringify(act))).toEqual(act);
    const { message } = await refused('act', JSON.stringify({ ...act, utterances: utterances.map(() => 7) }));
    expect(message).toMatch(/^The request is not as it must be: utterances\[0\] .*; and 9,997 more\.$/);
    expect((await refused('act', '{"do":')).message).toBe('The request cannot be read as JSON.');
  });

  it.each<[string, string]>([
    ['brackets', `${'['.repeat(3000)}${']'.repeat(3000)}`],
    ['brackets that are not closed', '['.repeat(100_000)],
    ['brackets after a quote that opens nothing', `name: 5" pots\nx: ${'['.repeat(3000)}`],
    ['braces and brackets', `${'{"a":'.repeat(900)}${'['.repeat(900)}`],
    ['lists in lists on a line', `${'- '.repeat(3000)}a`],
    ['questions in questions', `${'? '.repeat(3000)}a`],
    ['indentation', Array.from({ length: 1500 }, (_, depth) => `${' '.repeat(depth)}a:`).join('\n')],
  ])('that nest without end by %s are refused before they are parsed', async (_, source) => {
    for (let again = 0; again < 2; again++) {
      const { faults } = await refused('bot', source);
      expect(faults[0]!.message).toMatch(/nested deeper than any bot needs/);
    }
    // Whoever tries a broken file again takes nobody along.
    expect(await files.read('tests', 'text\nhi')).toHaveLength(1);
  });

  it('that nest as deep as is let through are read to their end', async () => {
    for (const [open, close] of [
      ['[', ']'],
      ['{a: ', '}'],
      ['- ', ''],
    ] as const) {
      await refused('bot', `name:\n  ${open.repeat(390)}x${close.repeat(390)}`);
      await refused('bot', `${open.repeat(390)}x`);
    }
    const lines = Array.from({ length: 300 }, (_, index) => `text ${index} :[`);
    expect(await files.read('tests', `text\n${lines.join('\n')}`)).toHaveLength(300);
    const bot = `reedGate: 1\nname: a\nintents:\n  - name: i\n    utterances:\n${lines.map((line) => `      - ${line}`).join('\n')}`;
    expect((await files.read('bot', bot)).intents[0]!.utterances).toHaveLength(300);
  });

  it('with many faults tell the first hundred and how many there are', async () => {
    const lines = Array.from({ length: 60_000 }, () => '{"text": 7}').join('\n');
    const error = await refused('tests', lines);
    expect(error.faults).toHaveLength(100);
    expect(error.number).toBe(60_000);
    expect(error.message).toContain('60,000 faults');
    const names = Array.from({ length: 20_000 }, (_, index) => `"k${index}":1`);
    const utterances = `"intents":[{"name":"i","utterances":[${'7,'.repeat(5000)}7]}]`;
    const bot = await refused('bot', `{"reedGate":1,"name":"a",${utterances},${names.join(',')}}`);
    expect(bot.faults).toHaveLength(100);
    expect(bot.number).toBe(25_001);
    expect(bot.message).toContain('25,001 faults');
  });

  it.each<[string, string, RegExp]>([
    [
      'a million utterances',
      JSON.stringify({ reedGate: 1, name: 'a', intents: [{ name: 'i', utterances: Array(1_000_000).fill(7) }] }),
      /more than 100,000 items/,
    ],
    [
      'too many unknown keys',
      `{"reedGate":1,"name":"a",${Array.from({ length: 20_000 }, (_, index) => `"k${index}":1`).join(',')}}`,
      /not known here/,
    ],
    ['a name without end', JSON.stringify({ reedGate: 1, name: 'a'.repeat(1_000_000) }), /at most 100 characters/],
    [
      'a pattern without end',
      JSON.stringify({
        reedGate: 1,
        name: 'a',
        entities: [{ name: 'e', kind: 'pattern', pattern: 'a'.repeat(1_000_000) }],
      }),
      /at most 500 characters/,
    ],
    ['a text without end', `reedGate: 1\nname: "${'a'.repeat(24_000_000)}"`, /longer than anything that a bot holds/],
    ['the name of every object', '{"reedGate":1,"name":"a","__proto__":{}}', /“__proto__” cannot be used/],
    ['an alias', 'reedGate: 1\nname: &a x\nregion: *a\n', /aliases|anchors/],
    ['a tag', 'reedGate: 1\nname: !danger x\n', /tags/],
    ['two documents', 'reedGate: 1\nname: a\n---\nreedGate: 1\n', /several documents/],
    ['a key twice', 'reedGate: 1\nname: a\nname: b\n', /stands twice/],
    ['a quote that is not closed', 'reedGate: 1\nname: "a\n', /missing|expected/],
  ])('with %s are refused in a sentence of our own', async (_, source, message) => {
    const { faults } = await refused('bot', source);
    expect(faults[0]!.message).toMatch(message);
    for (const fault of faults) expect(fault.message.length).toBeLessThan(400);
  });

  it('are written while a large one is read, and small ones read', async () => {
    const large = `reedGate: 1\nname: a\nintents:\n  - name: i\n    utterances:\n${'      - "a message of some length"\n'.repeat(99_000)}`;
    const done: string[] = [];
    const reading = files.read('bot', large).then(() => done.push('large'));
    const note = (what: string) => () => done.push(what);
    await Promise.all([
      reading,
      files.write(teaShop(), 'yaml').then(note('written')),
      files.read('tests', 'text\nhi').then(note('small')),
    ]);
    expect(done.at(-1)).toBe('large');
  });

  it('of messages have limits of their own', async () => {
    expect((await refused('tests', `text\n${'a'.repeat(20_001)}`)).faults[0]!.message).toMatch(/20,000 characters/);
    expect((await refused('tests', `text\n${'a\n'.repeat(100_001)}`)).faults[0]!.message).toMatch(/100,000 lines/);
    expect((await refused('tests', 'text,intent\n"a" b,c')).faults[0]!.message).toMatch(/closing quote|columns/);
    expect((await refused('walkthroughs', '{')).faults[0]!.message).toBe('the file is not JSON');
  });
});
