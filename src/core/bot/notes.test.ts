import { describe, expect, it } from 'vitest';
import { formNotes, incompleteForms, intentNotes, unknownValues } from './notes.js';
import { teaShop } from '../../../tests/teaShop.js';

const texts = (notes: { text: string }[]) => notes.map((note) => note.text);

describe('notes', () => {
  it('finds a required slot without a prompt, before anybody meets it in a conversation', () => {
    const shop = teaShop((draft) => {
      (draft['forms'] as { slots: { prompts: string[] }[] }[])[0]!.slots[1]!.prompts = [];
    });
    expect(texts(formNotes(shop, shop.forms[0]!))).toEqual(['tea is required and has no prompt.']);
    expect(incompleteForms(shop)).toEqual(['order']);
  });

  it('says nothing about a form that lacks nothing', () => {
    const shop = teaShop();
    expect(incompleteForms(shop)).toEqual([]);
  });

  it('says which rows stand in two intents or twice in one', () => {
    const shop = teaShop((draft) => {
      (draft['intents'] as { utterances: string[] }[])[1]!.utterances.push('Order some tea!', 'opening  times?');
    });
    expect(texts(intentNotes(shop, shop.intents[1]!, []))).toEqual(
      expect.arrayContaining([
        'Row 7 also stands in order_tea; one of the two should go.',
        'Row 8 says the same as row 6.',
      ]),
    );
  });

  it('names the intent that takes utterances away when held out', () => {
    const shop = teaShop();
    const heldOut = ['a', 'b'].map((text) => ({ intent: 'cancel_order', text, predicted: 'order_tea' }));
    expect(texts(intentNotes(shop, shop.intents[2]!, heldOut))).toContain(
      '2 utterances are taken for order_tea when held out.',
    );
  });

  it('finds marked words that their list does not know', () => {
    const shop = teaShop((draft) => {
      (draft['intents'] as { utterances: string[] }[])[0]!.utterances.push('two <tea>nettle tea</tea>');
    });
    expect(unknownValues(shop, shop.intents[0]!)).toEqual([{ row: 6, slot: 'tea', entity: 'tea', text: 'nettle tea' }]);
  });
});
