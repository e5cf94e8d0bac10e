import { wordsOf } from './reading.js';
import { describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import type { BotDocument } from '../bot/document.js';
import { languageOf } from '../language/index.js';
import { NO_VECTORS } from '../encode/encoder.js';
import { tokenise } from '../text/tokens.js';
import { prepareFinders } from './finders/index.js';
import type { Overlapped } from './finders/index.js';
import { prepareIntentSlots } from './slots.js';
import { openTagger, trainTaggers } from './tagger/tagger.js';
import { entriesOf } from '../text/named.js';

const NOW = '2026-03-04T09:30';

function reader(bot: BotDocument, intent: string) {
  const findAll = prepareFinders(bot, new Set(wordsOf(bot)));
  const readText = (text: string) => {
    const message = tokenise(text);
    return { message, candidates: findAll(message, NOW) };
  };
  const taggers = entriesOf(trainTaggers(bot, { readText, vectors: NO_VECTORS }));
  const slotsOf = prepareIntentSlots(
    bot,
    new Map(taggers.map(([form, tagger]) => [form, openTagger(tagger, languageOf(bot))])),
  );
  return (text: string, asked: string | null = null) => {
    const message = tokenise(text);
    const overlapped: Overlapped[] = [];
    const entities = findAll(message, NOW, overlapped);
    const found = { entities, overlapped: overlapped.map(({ candidate }) => candidate) };
    return slotsOf(intent, message, found, { vectors: NO_VECTORS, asked }).slots;
  };
}

const shop = teaShop();
const read = reader(shop, 'order_tea');
const values = (text: string) => Object.fromEntries(read(text).map(({ slot, value }) => [slot, value]));

/** A shop that moves orders from one day to another; two utterances are marked, too few to learn from. */
const movingShop = teaShop((draft) => {
  (draft['entities'] as object[]).push({ name: 'day', kind: 'date' }, { name: 'hour', kind: 'time' });
  (draft['forms'] as object[]).push({
    name: 'moving',
    slots: [
      { name: 'old_day', entity: 'day', required: false, prompts: [] },
      { name: 'new_day', entity: 'day', prompts: ['Which day?'] },
      { name: 'hour', entity: 'hour', required: false, prompts: [] },
      { name: 'new_hour', entity: 'hour', required: false, prompts: [] },
    ],
  });
  (draft['intents'] as object[]).push({
    name: 'move_order',
    form: 'moving',
    utterances: ['can you move my order to <new_day>Friday</new_day>', 'not <old_day>Monday</old_day> please'],
  });
});

describe('slots', () => {
  it('take values of their entity, with the words they stand in', () => {
    expect(read('two large packets of builders').map(({ slot, text, value }) => [slot, text, value])).toEqual([
      ['amount', 'two', 2],
      ['size', 'large', 'large'],
      ['tea', 'builders', 'black tea'],
    ]);
  });

  it('take the corrected value where the customer corrects in one breath', () => {
    expect(values('two packets, sorry, three packets of mint tea')).toEqual({ amount: 3, tea: 'mint tea' });
    expect(values('green tea. no wait, mint tea')).toEqual({ tea: 'mint tea' });
  });

  it('leave out a value that is ruled out', () => {
    expect(values('three, not two, of black tea')).toEqual({ amount: 3, tea: 'black tea' });
    expect(values('mint tea rather than green tea')).toEqual({ tea: 'mint tea' });
  });

  it('leave out a value that the words after it rule out', () => {
    expect(values('mint tea is no good, green tea')).toEqual({ tea: 'green tea' });
    expect(values("I don't want it with mint tea, green tea is better")).toMatchObject({ tea: 'green tea' });
  });

  it('are not hidden by an entity that the form has no slot for', () => {
    const bot = teaShop((draft) => {
      const entities = draft['entities'] as object[];
      entities.push({ name: 'half', kind: 'list', values: ['morning', 'afternoon'] }, { name: 'moment', kind: 'time' });
      (draft['forms'] as { slots: object[] }[])[0]!.slots.push({ name: 'half', entity: 'half', prompts: [] });
    });
    expect(reader(bot, 'order_tea')('in the afternoon').map(({ slot, value }) => [slot, value])).toEqual([
      ['half', 'afternoon'],
    ]);
  });

  it('without a form are the entities that utterances mark', () => {
    const bare = teaShop((draft) => {
      (draft['intents'] as { utterances: string[] }[])[1]!.utterances.push('do you have <tea>mint tea</tea>');
    });
    expect(reader(bare, 'opening_hours')('two green tea').map(({ slot }) => slot)).toEqual(['tea']);
  });
});

describe('slots that share an entity', () => {
  const trip = teaShop((draft) => {
    draft['entities'] = [{ name: 'place', kind: 'list', values: ['Dunlow', 'Hexby', 'Pellwick'] }];
    draft['intents'] = [
      {
        name: 'travel',
        form: 'trip',
        utterances: [
          'from <start>Dunlow</start> to <goal>Hexby</goal>',
          'go to <goal>Pellwick</goal> from <start>Hexby</start>',
          'a ticket to <goal>Dunlow</goal>',
          'leaving from <start>Pellwick</start>',
        ],
      },
    ];
    draft['forms'] = [
      {
        name: 'trip',
        slots: [
          { name: 'start', entity: 'place', required: true, prompts: ['From?'] },
          { name: 'goal', entity: 'place', required: true, prompts: ['To?'] },
        ],
      },
    ];
  });
  const readTrip = reader(trip, 'travel');

  it('are told apart by the words beside them', () => {
    const found = readTrip('I need to get to Hexby from Pellwick');
    expect(found.map(({ slot, value }) => [slot, value])).toEqual([
      ['goal', 'Hexby'],
      ['start', 'Pellwick'],
    ]);
  });

  it('go to the one that was asked for where the words do not tell', () => {
    expect(readTrip('Hexby', 'goal')).toMatchObject([{ slot: 'goal' }]);
    expect(readTrip('Hexby', 'start')).toMatchObject([{ slot: 'start' }]);
  });
});

describe('a stretch of days', () => {
  const stay = teaShop((draft) => {
    draft['entities'] = [];
    draft['intents'] = [
      { name: 'book', form: 'stay', utterances: ['a room from <first>Friday</first> to <last>Sunday</last>'] },
      { name: 'hello', utterances: ['hello there'] },
    ];
    draft['forms'] = [
      {
        name: 'stay',
        slots: [
          { name: 'first', entity: 'date', required: true, prompts: ['From?'] },
          { name: 'last', entity: 'date', required: true, prompts: ['Until?'] },
        ],
      },
    ];
  });
  const readStay = reader(stay, 'book');

  it('fills two slots for days with its ends', () => {
    expect(readStay('from the 10th to the 14th please').map(({ slot, value }) => [slot, value])).toEqual([
      ['first', '2026-03-10'],
      ['last', '2026-03-14'],
    ]);
  });

  it('fills one slot as it is', () => {
    const week = reader({ ...stay, forms: [{ ...stay.forms[0]!, slots: [stay.forms[0]!.slots[0]!] }] }, 'book');
    expect(week('from the 10th to the 14th').map(({ value }) => value)).toEqual(['2026-03-10/2026-03-14']);
  });
});

describe('slots for any words', () => {
  const desk = teaShop((draft) => {
    draft['entities'] = [
      { name: 'fault', kind: 'free' },
      { name: 'parcel', kind: 'pattern', pattern: 'P[0-9]{4}' },
      { name: 'who', kind: 'person' },
    ];
    draft['intents'] = [
      {
        name: 'complain',
        form: 'complaint',
        utterances: [
          'I complain that <fault>the lid was loose</fault>',
          'about <parcel>P1234</parcel> I complain that <fault>it was late</fault>',
          'I complain that <fault>nobody came</fault> with <parcel>P4321</parcel>',
          'I complain that <fault>the box was wet</fault>, tell <who>Mrs Lowe</who>',
          'tell <who>Jonas Wren</who> and <who>Petra Finn</who> that <fault>it was cold</fault>',
          'I complain that <fault>it smelt</fault>, tell <who>Mr Beck</who>',
          'tell <who>Anna Pike</who> about <parcel>P2222</parcel>',
          'I complain that <fault>the tin was dented</fault>',
        ],
      },
    ];
    draft['forms'] = [
      {
        name: 'complaint',
        slots: [
          { name: 'fault', entity: 'fault', required: true, prompts: ['What went wrong?'] },
          { name: 'parcel', entity: 'parcel', required: false, prompts: ['Which parcel?'] },
          { name: 'who', entity: 'who', required: false, prompts: ['Who shall hear of it?'] },
        ],
      },
    ];
  });
  const readDesk = reader(desk, 'complain');
  const found = (text: string) => readDesk(text).map(({ slot, text: words }) => [slot, words]);

  it('take words never seen, as far as they go', () => {
    expect(found('I complain that the leaves were mouldy')).toEqual([['fault', 'the leaves were mouldy']]);
    expect(found('I complain that the  leaves were mouldy').map(([, words]) => words)).toEqual([
      'the  leaves were mouldy',
    ]);
    expect(readDesk('I complain that the  leaves were mouldy')[0]!.value).toBe('the leaves were mouldy');
  });

  it('leave the values of other slots to them', () => {
    for (const text of [
      'I complain that the leaves were mouldy P7777',
      'I complain that P7777',
      'about P7777 I complain that it leaked',
    ]) {
      const slots = found(text);
      expect(
        slots.filter(([slot]) => slot === 'parcel'),
        text,
      ).toEqual([['parcel', 'P7777']]);
      for (const [slot, words] of slots) if (slot === 'fault') expect(words, text).not.toContain('P7777');
    }
  });

  it('take people that no finder knew beside those it did', () => {
    expect(found('tell Wilf Arden about P7777')).toEqual([
      ['who', 'Wilf Arden'],
      ['parcel', 'P7777'],
    ]);
  });
});

describe('the two sides of a change', () => {
  const moved = reader(movingShop, 'move_order');

  it.each([
    ['please change it from Friday to Monday', 'Friday', 'Monday'],
    ['could we go for Monday instead of Friday', 'Friday', 'Monday'],
    ["I'm down for Friday but I'd need it on Monday", 'Friday', 'Monday'],
    ['not Friday, Monday', 'Friday', 'Monday'],
    ['Monday rather than Friday would be better', 'Friday', 'Monday'],
    ["we said Friday, let's make that Monday", 'Friday', 'Monday'],
    ['swap my Friday order for Monday', 'Friday', 'Monday'],
    ["my order's for tomorrow, is Monday any good?", 'tomorrow', 'Monday'],
    ['Friday is no use to me, Monday is', 'Friday', 'Monday'],
    ["You're bringing it on Friday. I'm out then. Monday would do nicely.", 'Friday', 'Monday'],
    ['its booked in for the 12th, needs to be the 15th', 'the 12th', 'the 15th'],
    ['I put Friday on the form and it ought to be Monday', 'Friday', 'Monday'],
    ['my sister is here on Friday so can I have it Monday', 'Friday', 'Monday'],
    ['Monday please, Friday is impossible', 'Friday', 'Monday'],
    ['can it come Monday, I know I said Friday', 'Friday', 'Monday'],
    ['chagne firday to monday', 'firday', 'monday'],
    ['it says the sixteenth but it should be the twenty third', 'the sixteenth', 'the twenty third'],
    ['bring it forward to Monday', undefined, 'Monday'],
    ['make it Friday, no, Monday', undefined, 'Monday'],
    ['Monday would suit me better', undefined, 'Monday'],
    ["I can't make Friday", 'Friday', undefined],
    ['I no longer want it on Friday', 'Friday', undefined],
    ['the delivery on Friday has to be moved', 'Friday', undefined],
  ])('are told apart: %s', (text, former, coming) => {
    const read = Object.fromEntries(moved(text).map((slot) => [slot.slot, slot.text]));
    expect(read).toEqual({ ...(former && { old_day: former }), ...(coming && { new_day: coming }) });
  });

  it('are seen where one name alone tells', () => {
    const read = Object.fromEntries(moved('from four to half past six').map((slot) => [slot.slot, slot.text]));
    expect(read).toEqual({ hour: 'four', new_hour: 'half past six' });
  });

  it('leave a stretch whole that is one of them', () => {
    const read = moved('move it to the eleventh through the fourteenth');
    expect(read.map((slot) => [slot.slot, slot.text])).toEqual([['new_day', 'the eleventh through the fourteenth']]);
  });
});
