import type { BotDocument } from '../src/core/bot/document.js';
import { readBot } from '../src/core/bot/file.js';

/** A small tea shop for tests: an order with a conditional address, opening hours, a desk. */
export function teaShop(change: (draft: Record<string, unknown>) => void = () => undefined): BotDocument {
  const draft: Record<string, unknown> = {
    reedGate: 1,
    name: 'Tea shop',
    languages: ['qaa'],
    entities: [
      {
        name: 'tea',
        kind: 'list',
        misspellings: true,
        values: ['green tea', { value: 'black tea', synonyms: ['builders', 'breakfast tea'] }, 'mint tea'],
      },
      {
        name: 'size',
        kind: 'list',
        misspellings: true,
        values: [
          { value: 'small', synonyms: ['little'] },
          { value: 'large', synonyms: ['big'] },
        ],
      },
      {
        name: 'way',
        kind: 'list',
        values: [
          { value: 'delivery', synonyms: ['deliver'] },
          { value: 'collection', synonyms: ['collect', 'pick up'] },
        ],
      },
      { name: 'order_no', kind: 'pattern', pattern: 'T-\\d{4}' },
      { name: 'note', kind: 'free' },
    ],
    intents: [
      {
        name: 'order_tea',
        description: 'The customer wants to buy tea',
        form: 'order',
        utterances: [
          'I would like <amount>two</amount> packets of <tea>green tea</tea>',
          'can I order <tea>black tea</tea> please',
          'please send me <amount>4</amount> <size>large</size> <tea>mint tea</tea>',
          'order some tea',
          'I want to buy tea',
          'order <amount>three</amount> boxes of <tea>builders</tea> for delivery',
        ],
      },
      {
        name: 'opening_hours',
        description: 'The customer asks when the shop is open',
        reply: 'We open at nine.',
        utterances: [
          'what time do you open',
          'when are you open',
          'what are your opening hours',
          'are you open today',
          'when do you close',
          'opening times',
        ],
      },
      {
        name: 'cancel_order',
        description: 'The customer wants to cancel an order',
        form: 'cancellation',
        utterances: [
          'cancel my order',
          'I want to cancel <order_no>T-1234</order_no>',
          'please cancel order <order_no>T-9876</order_no>',
          'stop my order from going out',
          'cancel what I ordered',
        ],
      },
    ],
    forms: [
      {
        name: 'order',
        slots: [
          { name: 'amount', entity: 'number', required: true, prompts: ['How many?', 'A number, please.'] },
          { name: 'tea', entity: 'tea', required: true, prompts: ['Which tea?'] },
          { name: 'size', entity: 'size', required: false, prompts: [] },
          { name: 'way', entity: 'way', required: true, prompts: ['Delivery or collection?'] },
          {
            name: 'address',
            entity: 'address',
            required: true,
            when: { '==': [{ var: 'way' }, 'delivery'] },
            prompts: ['Which address?'],
          },
        ],
        confirm: '{amount, number} {tea} for {way}. Right?',
        decline: 'What shall I change?',
        done: 'Ordered as {order_no}.',
      },
      {
        name: 'cancellation',
        slots: [
          { name: 'order_no', entity: 'order_no', required: true, prompts: ['Which order?'] },
          { name: 'reason', entity: 'note', required: true, prompts: ['Why?'] },
        ],
        done: 'Cancelled.',
      },
    ],
    desks: [{ name: 'counter', handover: 'Passing you on.' }],
    noMatch: { prompts: ['Sorry?', 'Still not.'], tries: 3, desk: 'counter', giveUp: 'Goodbye.' },
  };
  change(draft);
  const result = readBot(draft);
  if (!result.ok) throw new Error(JSON.stringify(result.faults));
  return result.document;
}
