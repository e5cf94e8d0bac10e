import { describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import { goneBy } from './past.js';

const shop = teaShop((draft) => {
  (draft['entities'] as object[]).push({ name: 'day', kind: 'date' });
});
const slot = (name: string, prompt: string) => ({ id: name, name, entity: 'day', required: true, prompts: [prompt] });
const NOW = '2026-03-04T09:30';
const last = (name: string, prompt: string, text: string, value: string) =>
  goneBy(shop, slot(name, prompt), { text, value }, NOW);

describe('a day that is said by its weekday or its number alone', () => {
  it.each([
    ['Tuesday', '2026-03-10', '2026-03-03'],
    ['the 28th', '2026-03-28', '2026-02-28'],
    ['Wednesday', '2026-03-11', '2026-03-04'],
  ])('is the last there was where something has happened on it: %s', (text, ahead, gone) => {
    expect(last('day', 'On which day was it missed?', text, ahead)).toBe(gone);
    expect(last('lost_on', 'Which day?', text, ahead)).toBe(gone);
  });

  it('is as it was read where more is said, where it is past already, or where another day may be meant', () => {
    expect(last('day', 'When did it happen?', 'next Tuesday', '2026-03-10')).toBe('2026-03-10');
    expect(last('day', 'When did it happen?', '28 March', '2026-03-28')).toBe('2026-03-28');
    expect(last('day', 'When did it happen?', 'Monday', '2026-03-02')).toBe('2026-03-02');
    for (const prompt of ['Which day was it?', 'Which day did you have in mind?', 'Which day would suit?'])
      expect(last('day', prompt, 'Tuesday', '2026-03-10'), prompt).toBe('2026-03-10');
    expect(goneBy(shop, slot('lost', ''), { text: 'Tuesday', value: '2026-03-10' }, null)).toBe('2026-03-10');
  });
});
