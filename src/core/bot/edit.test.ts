import { describe, expect, it } from 'vitest';
import { applyEdit, EditError, type Edit } from './edit.js';
import { teaShop } from '../../../tests/teaShop.js';

const intent = (name: string, edit: Edit) =>
  applyEdit(teaShop(), edit).document.intents.find((item) => item.name === name)!;

describe('applyEdit', () => {
  it('adds pasted lines where they were pasted and drops empty ones', () => {
    const { utterances } = intent('opening_hours', {
      do: 'addUtterances',
      intent: 'opening_hours',
      at: 1,
      utterances: ['are you  shut now', ' ', 'open on Sunday'],
    });
    expect(utterances.slice(0, 4)).toEqual([
      'what time do you open',
      'are you shut now',
      'open on Sunday',
      'when are you open',
    ]);
  });

  it('leaves parts it does not touch the same objects', () => {
    const before = teaShop();
    const after = applyEdit(before, {
      do: 'addUtterances',
      intent: 'opening_hours',
      utterances: ['open now'],
    }).document;
    expect(after.intents[0]).toBe(before.intents[0]);
    expect(after.forms).toBe(before.forms);
    expect(after.intents[1]).not.toBe(before.intents[1]);
  });

  it('refuses to act on a row that has changed meanwhile', () => {
    const edit: Edit = { do: 'deleteUtterances', intent: 'opening_hours', rows: [{ index: 0, was: 'what it was' }] };
    expect(() => applyEdit(teaShop(), edit)).toThrow(/Row 1 of opening_hours has changed/);
  });

  it('moves rows and brings their marks to slots of the other form', () => {
    const rows = [{ index: 1, was: 'I want to cancel <order_no>T-1234</order_no>' }];
    const { document, label } = applyEdit(teaShop(), {
      do: 'moveUtterances',
      intent: 'cancel_order',
      rows,
      to: 'order_tea',
    });
    expect(document.intents[0]!.utterances.at(-1)).toBe('I want to cancel <order_no>T-1234</order_no>');
    expect(document.intents[2]!.utterances).toHaveLength(4);
    expect(label).toBe('move 1 utterance from cancel_order to order_tea');
  });

  it('renames a slot in marks, conditions and texts at once', () => {
    const { document } = applyEdit(teaShop(), { do: 'renameSlot', form: 'order', from: 'way', to: 'handover' });
    const [form] = document.forms;
    expect(form!.slots[4]!.when).toEqual({ '==': [{ var: 'handover' }, 'delivery'] });
    expect(form!.confirm).toBe('{amount, number} {tea} for {handover}. Right?');
    const renamed = applyEdit(teaShop(), { do: 'renameSlot', form: 'order', from: 'amount', to: 'packets' }).document;
    expect(renamed.intents[0]!.utterances[0]).toContain('<packets>two</packets>');
  });

  it('renames an entity where slots and marks name it', () => {
    const { document } = applyEdit(teaShop(), { do: 'changeEntity', name: 'size', to: { name: 'pack' } });
    expect(document.forms[0]!.slots[2]!.entity).toBe('pack');
  });

  it('takes marks along when a form is taken away from an intent', () => {
    const { utterances } = intent('order_tea', { do: 'changeIntent', name: 'order_tea', to: { form: null } });
    expect(utterances[0]).toBe('I would like <number>two</number> packets of <tea>green tea</tea>');
  });

  it('takes away the marks of a slot that is deleted', () => {
    const shop = applyEdit(teaShop(), { do: 'changeForm', name: 'order', to: { confirm: '{tea}?' } }).document;
    const { document } = applyEdit(shop, { do: 'deleteSlot', form: 'order', slot: 'amount' });
    expect(document.intents[0]!.utterances[0]).toBe('I would like two packets of <tea>green tea</tea>');
  });

  it('adds values with synonyms, leaves known ones out, and lets values hold commas', () => {
    const { document } = applyEdit(teaShop(), {
      do: 'addValues',
      entity: 'tea',
      values: [
        { value: ' white tea ', synonyms: ['silver needle', ' '] },
        { value: 'mint tea', synonyms: [] },
        { value: 'lemon, ginger', synonyms: [] },
      ],
    });
    expect(document.entities[0]!.values!.slice(2)).toEqual([
      { value: 'mint tea', synonyms: [] },
      { value: 'white tea', synonyms: ['silver needle'] },
      { value: 'lemon, ginger', synonyms: [] },
    ]);
  });

  it('lets acts stand that followed each other before the screen showed the first', () => {
    const acts: Edit[] = [
      { do: 'changeValue', entity: 'tea', value: 'black tea', to: { synonyms: ['assam', ' '] } },
      { do: 'deleteValues', entity: 'tea', values: ['green tea'] },
      { do: 'changeEntity', name: 'tea', to: { misspellings: false } },
      { do: 'changeSlot', form: 'order', slot: 'tea', to: { prompts: ['Which?'] } },
      { do: 'moveSlot', form: 'order', slot: 'tea', by: 1 },
      { do: 'changeForm', name: 'order', to: { done: 'Thanks.', decline: null } },
      { do: 'changeNoMatch', to: { tries: 2 } },
      { do: 'changeNoMatch', to: { desk: null } },
      { do: 'changeDesk', name: 'counter', to: { description: 'Serves' } },
    ];
    const shop = acts.reduce((document, edit) => applyEdit(document, edit).document, teaShop());
    expect(shop.entities[0]).toMatchObject({
      misspellings: false,
      values: [
        { value: 'black tea', synonyms: ['assam'] },
        { value: 'mint tea', synonyms: [] },
      ],
    });
    expect(shop.forms[0]!.slots.map((slot) => slot.name).indexOf('tea')).toBe(
      teaShop().forms[0]!.slots.findIndex((slot) => slot.name === 'tea') + 1,
    );
    expect(shop.forms[0]!.slots.find((slot) => slot.name === 'tea')).toMatchObject({ prompts: ['Which?'] });
    expect(shop.forms[0]).toMatchObject({ done: 'Thanks.' });
    expect(shop.forms[0]).not.toHaveProperty('decline');
    expect(shop.noMatch).toMatchObject({ tries: 2 });
    expect(shop.noMatch).not.toHaveProperty('desk');
    expect(shop.desks[0]).toMatchObject({ name: 'counter', description: 'Serves' });
  });

  it('gives an entity of another kind what that kind needs', () => {
    const kind = (to: 'pattern' | 'free') =>
      applyEdit(teaShop(), { do: 'changeEntity', name: 'tea', to: { kind: to } }).document.entities[0];
    expect(kind('pattern')).toEqual({ name: 'tea', kind: 'pattern', pattern: String.raw`\d+` });
    expect(kind('free')).toEqual({ name: 'tea', kind: 'free' });
  });

  it.each<[string, Edit, RegExp]>([
    ['an empty name', { do: 'addIntent', name: ' ' }, /Give the intent a name/],
    ['a name with spaces', { do: 'addIntent', name: 'order tea' }, /is no name/],
    ['a name that is taken', { do: 'addIntent', name: 'order_tea' }, /choose another name/],
    ['an intent that is not there', { do: 'deleteIntents', names: ['order_teas'] }, /did you mean "order_tea"/],
    ['an entity in use', { do: 'deleteEntity', name: 'tea' }, /fills a slot of the form order/],
    [
      'marking that cannot be read',
      { do: 'addUtterances', intent: 'order_tea', utterances: ['<tea>mint'] },
      /is not closed/,
    ],
    [
      'marks of no slot',
      { do: 'addUtterances', intent: 'order_tea', utterances: ['<teas>mint</teas>'] },
      /no slot or entity "teas"; did you mean "tea"/,
    ],
    ['a pattern that cannot be read', { do: 'changeEntity', name: 'order_no', to: { pattern: '[' } }, /cannot be read/],
    ['a desk in use', { do: 'deleteDesk', name: 'counter' }, /there is no desk "counter"/i],
    ['a value that is gone', { do: 'changeValue', entity: 'tea', value: 'oolong', to: { synonyms: [] } }, /no value/],
    [
      'a value twice',
      { do: 'changeValue', entity: 'tea', value: 'green tea', to: { value: 'black tea' } },
      /another value/,
    ],
    ['an empty value', { do: 'changeValue', entity: 'tea', value: 'green tea', to: { value: ' ' } }, /cannot be empty/],
    ['a slot beyond the end', { do: 'moveSlot', form: 'order', slot: 'tea', by: -9 }, /at the end/],
    ['a slot name that is taken', { do: 'renameSlot', form: 'order', from: 'tea', to: 'way' }, /another slot "way"/],
  ])('refuses %s', (_, edit, message) => {
    expect(() => applyEdit(teaShop(), edit)).toThrow(EditError);
    expect(() => applyEdit(teaShop(), edit)).toThrow(message);
  });
});
