import { describe, expect, it } from 'vitest';
import { act } from '../../../../tests/acting.js';
import { teaShop } from '../../../../tests/teaShop.js';
import { DEFAULT_COSTS, type BotDocument } from '../document.js';
import { deltaBetween, touchedBy } from '../delta.js';
import { writeMarking } from '../marking.js';
import { ActError, applyRestore, readAct, type BotAct } from './index.js';

/** The utterances of an intent after an act, as they are written. */
const written = (document: BotDocument, name: string): string[] =>
  document.intents.find((item) => item.name === name)!.utterances.map(writeMarking);

const after = (name: string, one: BotAct): string[] => written(act(teaShop(), one).document, name);

describe('acts upon a bot', () => {
  it('adds pasted lines where they were pasted and drops empty ones', () => {
    const lines = after('opening_hours', {
      do: 'addUtterances',
      intent: 'opening_hours',
      after: 'u7',
      utterances: ['are you  shut now', ' ', 'open on Sunday'],
    });
    expect(lines.slice(0, 4)).toEqual([
      'what time do you open',
      'are you shut now',
      'open on Sunday',
      'when are you open',
    ]);
  });

  it('leaves parts it does not touch the same objects', () => {
    const before = teaShop();
    const after = act(before, {
      do: 'addUtterances',
      intent: 'opening_hours',
      utterances: ['open now'],
    }).document;
    expect(after.intents[0]).toBe(before.intents[0]);
    expect(after.forms).toBe(before.forms);
    expect(after.intents[1]).not.toBe(before.intents[1]);
  });

  it('refuses to act on a row that has changed meanwhile or is gone, whatever row stands in its place', () => {
    const shop = teaShop();
    const row = { id: 'u7', was: 'what it was' };
    expect(() => act(shop, { do: 'deleteUtterances', rows: [row] })).toThrow(/“what it was” was changed meanwhile/);
    const gone = act(shop, { do: 'deleteUtterances', rows: [{ id: 'u7', was: 'what time do you open' }] }).document;
    const change: BotAct = { do: 'changeUtterance', row: { id: 'u7', was: 'what time do you open' }, to: 'open?' };
    expect(() => act(gone, change)).toThrow(/was deleted meanwhile/);
    expect(written(act(shop, change).document, 'opening_hours')[0]).toBe('open?');
  });

  it('finds a row that was moved meanwhile where it is', () => {
    const row = { id: 'u8', was: 'when are you open' };
    const moved = act(teaShop(), { do: 'moveUtterances', rows: [row], to: 'cancel_order' }).document;
    const changed = act(moved, { do: 'changeUtterance', row, to: 'stop it' }).document;
    expect(written(changed, 'cancel_order').at(-1)).toBe('stop it');
  });

  it('moves rows and brings their marks to slots of the other form', () => {
    const rows = [{ id: 'u14', was: 'I want to cancel <order_no>T-1234</order_no>' }];
    const { document, label } = act(teaShop(), { do: 'moveUtterances', rows, to: 'order_tea' });
    expect(written(document, 'order_tea').at(-1)).toBe('I want to cancel <order_no>T-1234</order_no>');
    expect(document.intents[2]!.utterances).toHaveLength(4);
    expect(document.intents[0]!.utterances.at(-1)!.id).toBe('u14');
    expect(label).toBe('move 1 utterance from cancel_order to order_tea');
  });

  it('takes the ids that a screen gave its rows, and refuses those that are taken', () => {
    const add = (ids: string[]): BotAct => ({ do: 'addUtterances', intent: 'order_tea', utterances: ['a', 'b'], ids });
    const { document } = act(teaShop(), add(['x1', 'x2']));
    expect(document.intents[0]!.utterances.slice(-2).map(({ id }) => id)).toEqual(['x1', 'x2']);
    expect(() => act(document, add(['x3', 'x2']))).toThrow(/there already/);
    expect(() => act(document, add(['x3', 'x3']))).toThrow(/there already/);
    expect(() => act(document, add(['x3']))).toThrow(/an id for each/);
  });

  it('renames a slot in marks, conditions and texts at once', () => {
    const { document } = act(teaShop(), { do: 'renameSlot', slot: 's4', to: 'handover' });
    const [form] = document.forms;
    expect(form!.slots[4]!.when).toEqual({ '==': [{ var: 'handover' }, 'delivery'] });
    expect(form!.confirm).toBe('{amount, number} {tea} for {handover}. Right?');
    const renamed = act(teaShop(), { do: 'renameSlot', slot: 's1', to: 'packets' }).document;
    expect(written(renamed, 'order_tea')[0]).toContain('<packets>two</packets>');
  });

  it('renames an entity where slots and marks name it', () => {
    const { document } = act(teaShop(), { do: 'changeEntity', name: 'size', to: { name: 'pack' } });
    expect(document.forms[0]!.slots[2]!.entity).toBe('pack');
  });

  it('takes marks along when a form is taken away from an intent', () => {
    const lines = after('order_tea', { do: 'changeIntent', name: 'order_tea', to: { form: null } });
    expect(lines[0]).toBe('I would like <number>two</number> packets of <tea>green tea</tea>');
  });

  it('takes away the marks of a slot that is deleted', () => {
    const shop = act(teaShop(), { do: 'changeForm', name: 'order', to: { confirm: '{tea}?' } }).document;
    const { document } = act(shop, { do: 'deleteSlot', slot: 's1' });
    expect(written(document, 'order_tea')[0]).toBe('I would like two packets of <tea>green tea</tea>');
  });

  it('adds values with synonyms, leaves known ones out, and lets values hold commas', () => {
    const { document } = act(teaShop(), {
      do: 'addValues',
      entity: 'tea',
      values: [
        { value: ' white tea ', synonyms: ['silver needle', ' '] },
        { value: 'mint tea', synonyms: [] },
        { value: 'lemon, ginger', synonyms: [] },
      ],
    });
    expect(document.entities[0]!.values!.slice(2)).toEqual([
      { id: 'v3', value: 'mint tea', synonyms: [] },
      { id: 'new1', value: 'white tea', synonyms: ['silver needle'] },
      { id: 'new3', value: 'lemon, ginger', synonyms: [] },
    ]);
  });

  it('lets acts stand that followed each other before the screen showed the first', () => {
    const acts: BotAct[] = [
      { do: 'changeValue', id: 'v2', to: { synonyms: ['assam', ' '] } },
      { do: 'deleteValues', ids: ['v1'] },
      { do: 'changeEntity', name: 'tea', to: { misspellings: false } },
      { do: 'changeSlot', slot: 's2', to: { prompts: ['Which?'] } },
      { do: 'moveSlot', slot: 's2', by: 1 },
      { do: 'changeForm', name: 'order', to: { done: 'Thanks.', decline: null } },
      { do: 'changeNoMatch', to: { tries: 2 } },
      { do: 'changeNoMatch', to: { desk: null } },
      { do: 'changeDesk', name: 'counter', to: { description: 'Serves' } },
      { do: 'changeGate', to: { accept: 0.7 } },
      { do: 'changeGate', to: { ask: 0.2, costs: { wrongAct: 20 } } },
      { do: 'changeGate', to: { costs: { question: 2 } } },
    ];
    const shop = acts.reduce((document, one) => act(document, one).document, teaShop());
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
    expect(shop.gate).toEqual({
      accept: 0.7,
      ask: 0.2,
      lead: 0.1,
      costs: { ...DEFAULT_COSTS, wrongAct: 20, question: 2 },
    });
    expect(shop.noMatch).toMatchObject({ tries: 2 });
    expect(shop.noMatch).not.toHaveProperty('desk');
    expect(shop.desks[0]).toMatchObject({ name: 'counter', description: 'Serves' });
  });

  it('gives an entity of another kind what that kind needs', () => {
    const kind = (to: 'pattern' | 'free') =>
      act(teaShop(), { do: 'changeEntity', name: 'tea', to: { kind: to } }).document.entities[0];
    expect(kind('pattern')).toEqual({ name: 'tea', kind: 'pattern', pattern: String.raw`\d+` });
    expect(kind('free')).toEqual({ name: 'tea', kind: 'free' });
  });

  it.each<[string, BotAct, RegExp]>([
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
    ['a value that is gone', { do: 'changeValue', id: 'v99', to: { synonyms: [] } }, /no longer there/],
    ['a value twice', { do: 'changeValue', id: 'v1', to: { value: 'black tea' } }, /another value/],
    ['an empty value', { do: 'changeValue', id: 'v1', to: { value: ' ' } }, /cannot be empty/],
    ['a slot beyond the end', { do: 'moveSlot', slot: 's2', by: -9 }, /at the end/],
    ['a slot name that is taken', { do: 'renameSlot', slot: 's2', to: 'way' }, /another slot "way"/],
  ])('refuses %s', (_, one, message) => {
    expect(() => act(teaShop(), one)).toThrow(ActError);
    expect(() => act(teaShop(), one)).toThrow(message);
  });

  it('says what it touched, row by row, and nothing beside', () => {
    const touched = (one: BotAct) => act(teaShop(), one).touched.sort();
    expect(touched({ do: 'deleteUtterances', rows: [{ id: 'u7', was: 'what time do you open' }] })).toEqual([
      'utterance u7',
    ]);
    expect(touched({ do: 'renameSlot', slot: 's1', to: 'packets' })).toEqual([
      'form order',
      'slot s1',
      'utterance u1',
      'utterance u3',
      'utterance u6',
    ]);
    expect(touched({ do: 'changeValue', id: 'v6', to: { value: 'by van' } })).toEqual(['slot s5', 'value v6']);
    expect(touched({ do: 'changeNoMatch', to: { tries: 2 } })).toEqual(['setting noMatch']);
    expect(touched({ do: 'changeIntent', name: 'opening_hours', to: { name: 'hours' } })).toEqual([
      'intent hours',
      'intent opening_hours',
    ]);
    expect(touched({ do: 'moveSlot', slot: 's2', by: 1 })).toEqual(['slot s2']);
  });

  it('is taken back by what it gives for that, which holds no more than it changed', () => {
    const many = act(teaShop(), {
      do: 'addUtterances',
      intent: 'order_tea',
      utterances: Array.from({ length: 10_000 }, (_, index) => `message number ${index}`),
    }).document;
    const first = many.intents[0]!.utterances[0]!;
    const { document, inverse, label } = act(many, {
      do: 'deleteUtterances',
      rows: [{ id: first.id, was: writeMarking(first) }],
    });
    expect(JSON.stringify(inverse).length).toBeLessThan(1000);
    const back = applyRestore(document, inverse, label);
    expect(back.document).toEqual(many);
    expect(back.document.intents[1]).toBe(many.intents[1]);
    expect(applyRestore(back.document, back.inverse, label).document).toEqual(document);
  });

  it('can be taken back after others have acted elsewhere, and not where what it speaks of has gone', () => {
    const shop = teaShop();
    const mine = act(shop, { do: 'deleteUtterances', rows: [{ id: 'u8', was: 'when are you open' }] });
    const theirs = act(mine.document, { do: 'deleteUtterances', rows: [{ id: 'u7', was: 'what time do you open' }] });
    const back = applyRestore(theirs.document, mine.inverse, mine.label).document;
    // The row before it is gone, so it stands where it stood.
    expect(back.intents[1]!.utterances.map(({ id }) => id)).toEqual(['u9', 'u8', 'u10', 'u11', 'u12']);
    const renamed = act(mine.document, { do: 'deleteIntents', names: ['opening_hours'] }).document;
    expect(() => applyRestore(renamed, mine.inverse, mine.label)).toThrow(/has changed meanwhile/);
  });

  it('is read from what came in, with every fault at its place and its count before its items', () => {
    const faultsOf = (value: unknown) => {
      const result = readAct(value);
      return result.ok ? [] : result.faults.map(({ path, message }) => `${path} ${message}`.trim());
    };
    expect(faultsOf({ do: 'addIntents', name: 'a' })[0]).toMatch(/names no act; did you mean "addIntent"/);
    expect(faultsOf({ do: 'addIntent' })).toEqual(['name is missing']);
    expect(faultsOf({ do: 'addIntent', name: 7 })).toEqual(['name must be a text']);
    expect(faultsOf({ do: 'addIntent', name: 'a'.repeat(101) })[0]).toMatch(/at most 100 characters/);
    expect(faultsOf({ do: 'addIntent', name: 'a', admin: true })[0]).toMatch(/admin is not known here/);
    expect(faultsOf({ do: 'addUtterances', intent: 'a', utterances: ['a', 7] })).toEqual([
      'utterances[1] must be a text',
    ]);
    const million = Array.from({ length: 1_000_000 }, (_, index) => index);
    expect(faultsOf({ do: 'addUtterances', intent: 'a', utterances: million })).toEqual([
      'utterances has more than 50,000 items; that many are not taken',
    ]);
    expect(faultsOf({ do: 'deleteUtterances', rows: million })).toEqual([
      'rows has more than 50,000 items; that many are not taken',
    ]);
    expect(faultsOf(null)).toEqual(['do names no act']);
  });

  it('does not tell apart documents that say the same', () => {
    const shop = teaShop();
    expect(touchedBy(deltaBetween(shop, structuredClone(shop)))).toEqual([]);
  });
});
