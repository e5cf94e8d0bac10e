import { describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import { insertsForForm } from './inserts.js';

describe('what may be put into the texts of a form', () => {
  const shop = teaShop((draft) => {
    const [order, cancellation] = draft['forms'] as { slots: object[] }[];
    order!.slots.push({ name: 'mail', entity: 'email' }, { name: 'card', entity: 'note' });
    cancellation!.slots.push({ name: 'day', entity: 'date' });
    const [buy] = draft['intents'] as { utterances: string[] }[];
    buy!.utterances.push('order tea with a card that says <card>many happy returns</card>');
  });
  const examples = (form: number) =>
    Object.fromEntries(insertsForForm(shop, shop.forms[form]!).map(({ text, example }) => [text, example]));

  it('is shown with an example of this bot: a value of the list, or words that were marked', () => {
    expect(examples(0)).toMatchObject({
      '{amount}': '4',
      '{tea}': 'green tea',
      '{card}': 'many happy returns',
      '{mail}': 'wren@example.org',
      '{reference}': '40001',
    });
    expect(examples(1)).toMatchObject({ '{order_no}': 'T-1234', '{reason}': 'in my own words' });
  });

  it('has other wordings of amounts, days and values of a list', () => {
    expect(examples(0)['{amount, plural, one {# piece} other {# pieces}}']).toBe('4 pieces');
    expect(Object.keys(examples(0)).find((text) => text.startsWith('{way, select,'))).toContain('delivery {delivery}');
    expect(examples(1)['{day, date, short}']).toMatch(/26/);
  });
});
