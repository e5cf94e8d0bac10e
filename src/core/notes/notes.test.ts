import { describe, expect, it } from 'vitest';
import { emptyBot } from '../bot/document.js';
import { botNotes, formNotes, incompleteForms, intentNotes, sayGaps } from './index.js';
import type { Note } from './note.js';
import { act } from '../../../tests/acting.js';
import { teaShop } from '../../../tests/teaShop.js';

const texts = (notes: { text: string }[]) => notes.map((note) => note.text);

const notesOn = (...looked: Parameters<typeof intentNotes>): Note[] =>
  [...intentNotes(...looked)].filter((note) => note !== null);

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
    expect(texts(notesOn(shop, shop.intents[1]!, []))).toEqual(
      expect.arrayContaining([
        'Row 7 also stands in order_tea; one of the two should go.',
        'Row 8 says the same as row 6.',
      ]),
    );
  });

  it('names the intent that takes utterances away when held out', () => {
    const shop = teaShop();
    const heldOut = ['a', 'b'].map((text) => ({ intent: 'cancel_order', text, predicted: 'order_tea' }));
    expect(texts(notesOn(shop, shop.intents[2]!, heldOut))).toContain(
      '2 utterances are taken for order_tea when held out.',
    );
  });

  it('names the row in which values could not be looked for', () => {
    const shop = teaShop();
    const [intent] = shop.intents;
    const text = intent!.utterances[1]!.text;
    const unread = [
      { intent: intent!.name, text, entities: ['when', 'amount'] },
      { intent: 'other', text: 'opening times', entities: ['when'] },
    ];
    expect(notesOn(shop, intent!, [], unread)).toContainEqual({
      check: 'unread',
      place: { intent: intent!.name, utterance: intent!.utterances[1]!.id },
      text: 'In row 2, when, amount could not be looked for; the rest of it is learned. Write it in another way, or take it out.',
      weight: 'missing',
    });
    expect(texts(notesOn(shop, shop.intents[1]!, [], unread)).join()).not.toContain('looked for');
  });

  it('finds marked words that their list does not know', () => {
    const shop = teaShop((draft) => {
      (draft['intents'] as { utterances: string[] }[])[0]!.utterances.push('two <tea>nettle tea</tea>');
    });
    const [note] = notesOn(shop, shop.intents[0]!).filter(({ check }) => check === 'unknown value');
    expect(note).toMatchObject({
      text: '“nettle tea” is no value of tea (row 7).',
      place: { intent: 'order_tea', slot: 'tea' },
    });
    const mended = act(shop, note!.mend!.act).document;
    expect(notesOn(mended, mended.intents[0]!).map(({ check }) => check)).not.toContain('unknown value');
  });

  it('finds texts that put in what is not there, or is of another kind', () => {
    const shop = teaShop((draft) => {
      const [form] = draft['forms'] as Record<string, unknown>[];
      form!['confirm'] = '{amount, date, long} {taa} {way, select, post {p} other {o}}';
      form!['done'] = 'Ordered as {reference}, {order_no}.';
    });
    expect(texts(formNotes(shop, shop.forms[0]!))).toEqual([
      'The confirmation: “amount” is no date, so it is said plainly.',
      'The confirmation: there is nothing called “taa” here, so the clause is left out; did you mean “tea”?',
      'The confirmation: “post” is no value of way, so its wording is never said.',
    ]);
  });

  it('mends what it remarks on', () => {
    const shop = teaShop((draft) => {
      (draft['intents'] as { utterances: string[] }[])[1]!.utterances.push('Order some tea!');
      const [form] = draft['forms'] as Record<string, unknown>[];
      form!['confirm'] = 'So {taa} it is?';
      delete form!['decline'];
      (form!['slots'] as Record<string, unknown>[]).at(-1)!['when'] = { '==': [{ var: 'way' }, 'delivry'] };
    });
    const notes = [...notesOn(shop, shop.intents[1]!), ...formNotes(shop, shop.forms[0]!)].filter(({ mend }) => mend);
    expect(notes.map(({ mend }) => mend!.words)).toEqual([
      'Delete row 7',
      'Write “What shall I change?”',
      'Put {tea}',
      'Put “delivery”',
    ]);
    const mended = notes.reduce((document, { mend }) => act(document, mend!.act).document, shop);
    expect(mended.intents[1]!.utterances).toHaveLength(6);
    expect(mended.forms[0]).toMatchObject({ confirm: 'So {tea} it is?', decline: 'What shall I change?' });
    expect(mended.forms[0]!.slots.at(-1)!.when).toEqual({ '==': [{ var: 'way' }, 'delivery'] });
    expect(formNotes(mended, mended.forms[0]!)).toEqual([]);
  });

  it('tells of a text when its slot is deleted, and of none when it is called otherwise', () => {
    const shop = teaShop();
    const renamed = act(shop, { do: 'renameSlot', slot: 's2', to: 'leaf' }).document;
    expect(texts(formNotes(renamed, renamed.forms[0]!))).toEqual([]);
    const deleted = act(shop, { do: 'deleteSlot', slot: 's2' }).document;
    expect(texts(formNotes(deleted, deleted.forms[0]!)).join()).toContain('there is nothing called “tea” here');
  });

  it('finds a condition on a value that is not there, and lets conditions follow values', () => {
    const shop = teaShop();
    const renamed = act(shop, { do: 'changeValue', id: 'v6', to: { value: 'by van' } });
    expect(renamed.document.forms[0]!.slots.at(-1)!.when).toEqual({ '==': [{ var: 'way' }, 'by van'] });
    const gone = act(shop, { do: 'deleteValues', ids: ['v6'] }).document;
    expect(texts(formNotes(gone, gone.forms[0]!)).join()).toContain('is “delivery”, which is no value of way');
  });

  it('leads a condition from a synonym to its value', () => {
    const shop = teaShop((draft) => {
      const [form] = draft['forms'] as { slots: Record<string, unknown>[] }[];
      form!.slots.at(-1)!['when'] = { in: [{ var: 'way' }, ['Deliver', 'pick up']] };
    });
    expect(shop.forms[0]!.slots.at(-1)!.when).toEqual({ in: [{ var: 'way' }, ['delivery', 'collection']] });
  });

  it('counts intents with nothing to say and texts with unknown names, and no empty bot as complete', () => {
    expect(sayGaps(emptyBot('new'))).toBeNull();
    expect(sayGaps(teaShop())).toEqual({ forms: [], intents: [], texts: 0 });
    const shop = teaShop((draft) => {
      const intents = draft['intents'] as Record<string, unknown>[];
      delete intents[1]!['reply'];
      intents.push({ name: 'praise', reply: 'Thank you for {praise}.' });
      draft['texts'] = { left: 'We leave {form}.' };
    });
    const gaps = sayGaps(shop)!;
    expect(gaps.intents).toEqual(['opening_hours']);
    expect(gaps.texts).toBe(2);
    expect(botNotes(shop)).toHaveLength(1);
  });
});
