import { describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import { NO_VECTORS } from '../encode/encoder.js';
import { openRecogniser } from './open.js';
import { prepareTraining } from './train.js';

const shop = teaShop((draft) => {
  const entities = draft['entities'] as object[];
  entities.push(
    {
      name: 'rose',
      kind: 'list',
      misspellings: true,
      values: [{ value: 'climbing rose', synonyms: ['red one', 'rambling rose'] }],
    },
    { name: 'thing', kind: 'list', misspellings: true, values: ['there', 'dresser', 'wheel', 'weeks rental'] },
    { name: 'on_day', kind: 'date' },
    { name: 'at', kind: 'time' },
  );
  const [form] = draft['forms'] as { slots: object[] }[];
  for (const entity of ['rose', 'thing', 'on_day', 'at']) form!.slots.push({ name: `${entity}_slot`, entity });
});
const recogniser = openRecogniser(shop, prepareTraining(shop).train(NO_VECTORS));
const read = (text: string) => {
  const recognition = recogniser.recognise(text, NO_VECTORS, '2026-03-04T09:30');
  const slots = recogniser.readSlots('order_tea', recognition, NO_VECTORS, null);
  return Object.fromEntries(slots.map(({ slot, value }) => [slot, value]));
};

describe('everyday words', () => {
  it.each<[string, Record<string, unknown>]>([
    ["we'd like some", {}],
    ['wed like some tea if that is ok', {}],
    ['can one of your people ring me', {}],
    ['in two weeks', { on_day_slot: '2026-03-18' }],
    ['the 22nd of May', { on_day_slot: '2026-05-22' }],
    ['the 22nd of may please', { on_day_slot: '2026-05-22' }],
    ['one red rose please', { amount: 1 }],
    ['the party has grown from four to seven', { amount: 7 }],
    ['are they here or where', {}],
    ['the dress and the heel', {}],
    ['minus five', { amount: -5 }],
    ['the 31st of February', {}],
    ['three at half past two', { amount: 3, at_slot: '14:30' }],
  ])('are no values: %s', (text, wanted) => {
    expect(read(text)).toEqual(wanted);
  });
});
