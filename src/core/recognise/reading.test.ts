import { describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import { prepareReader, wordsOf } from './reading.js';

const shop = teaShop((draft) => {
  draft['languages'] = ['en'];
  const [first] = draft['intents'] as { utterances: string[] }[];
  first!.utterances.push('i wnat some oolong', 'a tin of oolong', 'zhu ye qing please');
});
const words = wordsOf(shop);
const read = (text: string) => prepareReader(shop, words).read(text);

describe('the words of a bot', () => {
  it('are those of its lists and utterances, but not the misspellings in them', () => {
    expect(words).toEqual(expect.arrayContaining(['oolong', 'zhu']));
    expect(words).not.toContain('wnat');
  });
});

describe('a message', () => {
  it('is read with its misspelt words put right, and tells where they stood', () => {
    const text = 'I wnat olong pls';
    const { mended, mendings } = read(text);
    expect(mended).toBe('I want oolong please');
    expect(mendings.map(({ start, end, to }) => [text.slice(start, end), to])).toEqual([
      ['wnat', 'want'],
      ['olong', 'oolong'],
      ['pls', 'please'],
    ]);
  });

  it('has no misspellings in its addresses', () => {
    const text = 'pls write to rosa.frendly@exmaple.org or see www.tae.org/olong pls';
    expect(read(text).mendings.map(({ text: word }) => word)).toEqual(['pls', 'pls']);
  });

  it('is encoded without the numbers of orders and accounts, which keep their words', () => {
    const { mended, tokens } = read('cancel J577412, account 20331 was for 250 tins');
    expect(mended).toBe('cancel it, account it was for 250 tins');
    expect(tokens.map(({ text }) => text)).toEqual(expect.arrayContaining(['J', '577412', '20331']));
  });

  it('of several sentences is read by each of them, the asking ones weighing more', () => {
    const { sentences } = read('My mother is comming on Sunday. Could you send two tins of oolong?');
    expect(sentences.map(({ text }) => text)).toEqual([
      'My mother is coming on Sunday',
      'Could you send two tins of oolong?',
    ]);
    expect(sentences[1]!.weight).toBeGreaterThan(sentences[0]!.weight);
    expect(read('just the one sentence here').sentences).toEqual([]);
  });

  it('of endless length is read up to a point', () => {
    expect(read('1 2 3 '.repeat(2000))).toMatchObject({ text: '1 2 3 '.repeat(2000).slice(0, 999) });
    expect(read('x'.repeat(9000)).text).toHaveLength(4000);
    expect(read('qzxv wkjh '.repeat(300)).mendings).toEqual([]);
  });

  it('of very many sentences is read by those that ask', () => {
    const { sentences } = read(`${'It rained all day. '.repeat(40)}Can I have some oolong?`);
    expect(sentences.length).toBeLessThanOrEqual(6);
    expect(sentences.at(-1)!.text).toBe('Can I have some oolong?');
  });
});
