import { describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import { NO_VECTORS } from '../encode/encoder.js';
import { openRecogniser } from '../recognise/open.js';
import { prepareTraining } from '../recognise/train.js';
import { whatFollows } from './follows.js';
import { startConversation, type ConversationState } from './state.js';
import { step } from './step.js';
import type { SlotValue } from '../recognise/value.js';
import { namedAs } from '../text/named.js';

const shop = teaShop();
const form = shop.forms[0]!;
type Held = Record<string, SlotValue>;
const follows = (held: Held, given: Held) => whatFollows(shop, form, namedAs(held), namedAs(given));

describe('from what a message gives', () => {
  it('follows the choice by which alone an address counts', () => {
    expect(follows({}, { address: '12 Sluice Lane' })).toEqual({ way: 'delivery' });
    expect(follows({ way: 'collection' }, { address: '12 Sluice Lane' })).toEqual({});
    expect(follows({}, { way: 'collection', address: '12 Sluice Lane' })).toEqual({});
    expect(follows({}, { amount: 3 })).toEqual({});
  });

  it('follows no choice where there is another, or where anybody may tell as much', () => {
    const open = teaShop((draft) => {
      const [order] = draft['forms'] as { slots: { name: string; when?: unknown }[] }[];
      order!.slots.find(({ name }) => name === 'address')!.when = { '!=': [{ var: 'way' }, 'nothing'] };
    });
    expect(whatFollows(open, open.forms[0]!, {}, namedAs({ address: '12 Sluice Lane' }))).toEqual({});
    const counted = teaShop((draft) => {
      const [order] = draft['forms'] as { slots: { name: string; when?: unknown }[] }[];
      order!.slots.find(({ name }) => name === 'amount')!.when = { '==': [{ var: 'way' }, 'delivery'] };
    });
    expect(whatFollows(counted, counted.forms[0]!, {}, namedAs({ amount: 3 }))).toEqual({});
  });

  it('follows the number of the things that are left', () => {
    const held = { amount: [6, 4, 2], tea: ['green tea', 'black tea', 'mint tea'] };
    expect(follows(held, { tea: 'black tea' })).toEqual({ amount: 4 });
    expect(follows(held, { tea: ['mint tea', 'green tea'] })).toEqual({ amount: [2, 6] });
    expect(follows(held, { tea: 'black tea', amount: 9 })).toEqual({});
    expect(follows(held, { tea: 'oolong' })).toEqual({});
    expect(follows({ ...held, amount: 6 }, { tea: 'black tea' })).toEqual({});
  });

  it('nothing is asked that was answered by its consequence', () => {
    const recogniser = openRecogniser(shop, prepareTraining(shop).train(new Map()));
    const say = (state: ConversationState, text: string) =>
      step(recogniser, state, { type: 'text', text, vectors: NO_VECTORS, now: '2026-03-04T09:30' });
    let turn = step(recogniser, startConversation('40001'), { type: 'choice', intent: 'order_tea' });
    for (const text of ['four', 'green tea']) turn = say(turn.state, text);
    expect(turn.says.at(-1)!.text).toBe('Delivery or collection?');
    turn = say(turn.state, '12 Sluice Lane, Dunlow');
    expect(turn.says.map(({ text }) => text)).toEqual(['4 green tea for delivery. Right?']);
    turn = say(turn.state, 'no, collection');
    expect(turn.says.map(({ text }) => text)).toEqual(['4 green tea for collection. Right?']);
  });
});
