import { describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import { findInBot } from './find.js';

const find = (text: string) => findInBot(teaShop(), text, [], 20);
const kinds = (text: string) => [...new Set(find(text).map(({ kind }) => kind))];

describe('finding in a bot', () => {
  it('finds intents, forms, slots, entities, values and the words of utterances', () => {
    expect(kinds('order')).toEqual(expect.arrayContaining(['intent', 'form', 'utterance']));
    expect(kinds('tea')).toEqual(expect.arrayContaining(['slot', 'entity', 'value']));
    expect(find('time zone')).toEqual([expect.objectContaining({ kind: 'setting', to: 'settings' })]);
  });

  it('leads to the row', () => {
    const [first] = find('utterance cancel');
    expect(first!.kind).toBe('utterance');
    expect(first!.to).toMatch(/^teach\?intent=cancel_order&row=u\d+$/);
  });

  it('wants every word, in any order and in capitals or not', () => {
    expect(find('TEA slot').length).toBeGreaterThan(0);
    expect(find('tea nowhere')).toEqual([]);
    expect(find('  ')).toEqual([]);
  });

  it('leaves room for names where thousands of utterances have the words', () => {
    const shop = teaShop();
    shop.intents[0]!.utterances = Array.from({ length: 500 }, (_, at) => ({ id: `x${at}`, text: 'tea', marks: [] }));
    const found = findInBot(shop, 'tea', [{ kind: 'walkthrough', label: 'tea for two', hint: '', to: 'try' }], 50);
    expect(found.filter(({ kind }) => kind === 'utterance').length).toBeLessThan(10);
    expect(found[0]!.kind).toBe('walkthrough');
  });
});
