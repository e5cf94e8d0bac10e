import { NO_VECTORS } from '../encode/encoder.js';
import { describe, expect, it } from 'vitest';
import type { BotDocument } from '../bot/document.js';
import { teaShop } from '../../../tests/teaShop.js';
import type { Recogniser } from '../recognise/open.js';
import type { Recognition } from '../recognise/recognition.js';
import { openRecogniser } from '../recognise/open.js';
import { prepareTraining } from '../recognise/train.js';
import {
  finalOutcome,
  heldValues,
  startConversation,
  type ConversationEvent,
  type ConversationState,
  type Step,
} from './state.js';
import { step } from './step.js';
import { heldOf } from '../text/named.js';

const NOW = '2026-03-04T09:30';

/**
 * A bot whose intents are recognised by their first words, so that a test says exactly what the gate decides;
 * values are found by the real finders.
 */
function scripted(bot: BotDocument = teaShop()): Recogniser {
  const real = openRecogniser(bot, prepareTraining(bot).train(new Map()));
  const keys: Record<string, string> = { order: 'order_tea', open: 'opening_hours', cancel: 'cancel_order' };
  return {
    document: real.document,
    textsToEncode: (text) => real.textsToEncode(text),
    textsToExplain: (text) => real.textsToExplain(text),
    explain: (text, vectors, now) => real.explain(text, vectors, now),
    readSlots: (...given) => real.readSlots(...given),
    recognise(text, vectors, now) {
      const recognition = real.recognise(text, vectors, now);
      const decided = (intent: string, decision: Recognition['decision'], candidates: string[]): Recognition => ({
        ...recognition,
        intent,
        decision,
        candidates,
        confidence: decision === 'accept' ? 0.9 : 0.4,
        ranking: [{ intent, confidence: decision === 'accept' ? 0.9 : 0.4 }],
        slots: real.readSlots(intent, recognition, vectors, null),
      });
      const wanted = keys[text.toLowerCase().split(' ')[0] ?? ''];
      if (wanted) return decided(wanted, 'accept', [wanted]);
      if (text.startsWith('likely')) return decided('order_tea', 'ask', ['order_tea']);
      if (text.startsWith('perhaps')) return decided('order_tea', 'ask', ['order_tea', 'cancel_order']);
      return { ...recognition, intent: null, decision: 'none', candidates: [], confidence: 0.1, ranking: [] };
    },
  };
}

/** Talks to a bot and gives the last step. */
function talk(turns: (string | ConversationEvent)[], recogniser = scripted()): Step & { all: Step[] } {
  let state: ConversationState = startConversation('T-1');
  const all: Step[] = [];
  for (const turn of turns) {
    const event: ConversationEvent =
      typeof turn === 'string' ? { type: 'text', text: turn, vectors: NO_VECTORS, now: NOW } : turn;
    const result = step(recogniser, state, event);
    all.push(result);
    state = result.state;
  }
  return { ...all.at(-1)!, all };
}

const said = (result: Step) => result.says.map((say) => say.text).join(' ');

describe('a form', () => {
  it('asks for required slots in their order and skips what was given', () => {
    const { all } = talk(['order mint tea', '3', 'pick up']);
    expect(all.map(said)).toEqual(['How many?', 'Delivery or collection?', '3 mint tea for collection. Right?']);
  });

  it('takes several slots at once, whichever was asked for', () => {
    const result = talk(['order', 'two large green tea for collection']);
    expect(heldValues(result.state)).toEqual({ amount: 2, tea: 'green tea', size: 'large', way: 'collection' });
    expect(said(result)).toBe('2 green tea for collection. Right?');
  });

  it('asks for a conditional slot only while its condition holds', () => {
    expect(said(talk(['order two green tea', 'deliver it']))).toBe('Which address?');
    expect(said(talk(['order two green tea', 'collect']))).toBe('2 green tea for collection. Right?');
  });

  it('takes a correction of what was given before, whatever was asked for and whatever else it resembles', () => {
    const { state } = talk(['order two green tea', 'open the big tin: mint tea, I meant']);
    expect(heldValues(state)).toMatchObject({ amount: 2, tea: 'mint tea' });
    expect(state.open?.asked).toBe('way');
    const { state: answering } = talk(['order two green tea', 'deliver', 'no, make it three green tea']);
    expect(heldValues(answering)).toMatchObject({ amount: 3, way: 'delivery' });
    expect(heldOf(heldValues(answering), 'address')).toBeUndefined();
  });

  it('takes no value for a slot whose condition does not hold', () => {
    const { state } = talk(['order two green tea for collection', 'no', 'to 4 Mill Lane, Dunlow']);
    expect(heldOf(heldValues(state), 'address')).toBeUndefined();
  });

  it('takes the whole answer for free words, without the lead-in', () => {
    const result = talk(['order two green tea', 'deliver', 'send it to the old mill by the bridge please']);
    expect(heldOf(heldValues(result.state), 'address')).toBe('the old mill by the bridge');
  });

  it('completes at a yes, with its reference, and says so', () => {
    const result = talk(['order two green tea', 'collect', 'yes please']);
    expect(said(result)).toBe('Ordered as T-1.');
    expect(result.acts).toContainEqual({
      act: 'complete',
      form: 'order',
      intent: 'order_tea',
      reference: 'T-1',
      values: { amount: 2, tea: 'green tea', way: 'collection' },
    });
    expect(finalOutcome(result.state)).toBe('completed');
  });

  it('completes without a read-back where none is written', () => {
    const { all } = talk(['cancel T-1234', 'too much tea']);
    expect(all.map(said)).toEqual(['Why?', 'Cancelled.']);
  });

  it('asks again with the next prompt, and hands over after the last try', () => {
    const { all, state } = talk(['order', 'hm hm', 'la la', 'du du']);
    expect(all.map(said)).toEqual(['How many?', 'A number, please.', 'A number, please.', 'Passing you on.']);
    expect(state).toMatchObject({ outcome: 'handed_off', desk: 'counter', open: null });
  });

  it('counts tries anew after one that was understood', () => {
    const { state } = talk(['order', 'hm hm', 'la la', '4', 'hm hm']);
    expect(state.tries).toBe(1);
    expect(state.outcome).toBeNull();
  });
});

describe('at the read-back', () => {
  const start = ['order two green tea', 'collect'];

  it('a no asks what to change, and a value changes it', () => {
    const { all, state } = talk([...start, 'no', 'make it five', 'yes']);
    expect(all.slice(2).map(said)).toEqual([
      'What shall I change?',
      '5 green tea for collection. Right?',
      'Ordered as T-1.',
    ]);
    expect(heldOf(heldValues(state), 'amount')).toBe(5);
  });

  it('a no with its correction needs no further question', () => {
    expect(said(talk([...start, 'no, mint tea']))).toBe('2 mint tea for collection. Right?');
  });

  it('a yes with another value is a correction', () => {
    expect(said(talk([...start, 'yes, but three of them']))).toBe('3 green tea for collection. Right?');
  });

  it('naming a slot asks for it', () => {
    const { all } = talk([...start, 'no', 'the amount', '7']);
    expect(all.slice(3).map(said)).toEqual(['How many?', '7 green tea for collection. Right?']);
  });

  it('changing the way brings the conditional slot in', () => {
    expect(said(talk([...start, 'no', 'deliver it instead']))).toBe('All right, delivery it is. Which address?');
  });

  it('what is not understood is read back again', () => {
    expect(said(talk([...start, 'la la la']))).toBe('2 green tea for collection. Right?');
  });

  it('records what each slot held before', () => {
    expect(talk([...start, 'no', 'make it five']).acts).toContainEqual({
      act: 'setSlot',
      slot: 'amount',
      value: 5,
      before: 2,
    });
  });
});

describe('another intent in the middle of a form', () => {
  it('is answered, and the form asks again', () => {
    const { all } = talk(['order green tea', 'open today?', '4']);
    expect(all.map(said)).toEqual(['How many?', 'We open at nine. How many?', 'Delivery or collection?']);
  });

  it('with a form of its own parks the first and comes back to it', () => {
    const { all } = talk(['order two green tea', 'cancel T-1234', 'too dear', 'collect']);
    expect(all.map(said)).toEqual([
      'Delivery or collection?',
      'Why?',
      'Cancelled. Delivery or collection?',
      '2 green tea for collection. Right?',
    ]);
    expect(all[2]!.acts.map((act) => act.act)).toEqual(['setSlot', 'complete', 'resumeForm']);
  });

  it('does not take a value out of a question about something else', () => {
    const { state } = talk(['order green tea', 'open at 4?']);
    expect(heldValues(state)).toEqual({ tea: 'green tea' });
  });
});

describe('commands', () => {
  it('leave the form', () => {
    const result = talk(['order two green tea', 'never mind, forget it']);
    expect(result.state).toMatchObject({ open: null, outcome: 'cancelled' });
    expect(result.acts).toEqual([{ act: 'cancel', form: 'order' }]);
    expect(heldValues(result.state)).toMatchObject({ amount: 2 });
  });

  it('do not take the cancelling of another order for leaving', () => {
    expect(talk(['order two green tea', 'cancel order T-9999']).state.open?.form).toBe('cancellation');
  });

  it('hand over to a person', () => {
    const result = talk(['order', 'can I talk to a real person']);
    expect(result.state.outcome).toBe('handed_off');
    expect(result.trace.reader).toBe('command');
  });

  it('repeat what was said', () => {
    expect(said(talk(['order', 'sorry, can you repeat that please']))).toBe('How many?');
  });

  it('start over with nothing held', () => {
    const { state } = talk(['order two green tea', 'start again']);
    expect(state.open).toBeNull();
    expect(heldValues(state)).toEqual({});
  });

  it('tell what the bot can do', () => {
    expect(said(talk(['help']))).toMatch(/^I can help with these: order tea, opening hours,? and cancel an order\.$/);
  });
});

describe('when the gate is unsure', () => {
  it('asks which is meant and acts on the answer', () => {
    const { all } = talk(['perhaps two packets', 'the first one']);
    expect(all[0]!.says[0]!.choices?.map((choice) => choice.intent)).toEqual(['order_tea', 'cancel_order']);
    expect(heldValues(all[1]!.state)).toEqual({ amount: 2 });
  });

  it('takes a choice that was pressed, with what the message gave', () => {
    const { state } = talk(['perhaps two packets', { type: 'choice', intent: 'order_tea' }]);
    expect(heldValues(state)).toEqual({ amount: 2 });
  });

  it('takes details for an answer', () => {
    expect(talk(['perhaps', 'mint tea']).state.open?.form).toBe('order');
  });

  it('takes a message that it is unsure of for the one offered that is by far the likeliest', () => {
    expect(talk(['perhaps', 'likely that']).state.open?.form).toBe('order');
    expect(talk(['perhaps', 'no likely that']).state.open).toBeNull();
  });

  it('lets none of them be meant', () => {
    const result = talk(['perhaps', 'no']);
    expect(result.state.choosing).toBeNull();
    expect(said(result)).toBe('Sorry?');
  });
});

describe('how it asks where it is unsure', () => {
  const asking = (clarify: Record<string, unknown>) =>
    scripted(teaShop((draft) => (draft['gate'] = { ...(draft['gate'] as object), clarify })));

  it('stops asking after so many times in a row, until something is understood', () => {
    const once = asking({ asks: 1 });
    const { all } = talk(['perhaps', 'no', 'perhaps', 'open', 'perhaps'], once);
    expect(all.map(({ state }) => state.choosing !== null)).toEqual([true, false, false, false, true]);
    expect(said(all[2]!)).toBe('Still not.');
  });

  it('asks about a single likely intent, or takes it with a word about it', () => {
    expect(said(talk(['likely']))).toMatch(/^Do you mean/);
    const { state, says } = talk(['likely'], asking({ single: 'take' }));
    expect(says.map(({ text }) => text)).toEqual([expect.stringMatching(/^I take it that/), 'How many?']);
    expect(state.open?.intent).toBe('order_tea');
  });

  it('hands over at once where none of those is meant, if so set', () => {
    expect(said(talk(['perhaps', 'neither'], asking({ neither: 'desk' })))).toBe('Passing you on.');
    expect(said(talk(['perhaps', 'neither'], asking({ neither: 'noMatch' })))).toBe('Sorry?');
  });
});

describe('where help is sought', () => {
  const seeking = (order: string[], more: object = {}) =>
    scripted(
      teaShop(
        (draft) =>
          (draft['noMatch'] = { prompts: ['Sorry?', 'Still not.'], tries: 2, order, giveUp: 'Goodbye.', ...more }),
      ),
    );

  it('follows the order that is set', () => {
    const { all } = talk(['la', 'la', 'la'], seeking(['reword', 'options', 'end']));
    expect(all.map(said)).toEqual(['Sorry?', expect.stringMatching(/^Still not\. I can help with/), 'Goodbye.']);
  });

  it('ends with a desk, also where the order does not name one', () => {
    expect(said(talk(['la', 'la'], seeking(['reword', 'desk'])))).toBe('Passing you on.');
    expect(said(talk(['la', 'la'], seeking(['reword'])))).toBe('Passing you on.');
  });

  it('offers the intents that come nearest', () => {
    const real = openRecogniser(teaShop(), prepareTraining(teaShop()).train(new Map()));
    const document = seeking(['nearest']).document;
    const unsure: Recogniser = {
      ...scripted(),
      document,
      recognise: (text, vectors, now) => ({
        ...real.recognise(text, vectors, now),
        decision: 'none',
        intent: null,
        candidates: [],
      }),
    };
    const { state, says } = talk(['tea things'], unsure);
    expect(says.at(-1)!.text).toMatch(/^Which do you mean/);
    expect(state.choosing!.length).toBeGreaterThan(1);
  });

  it('counts silences of their own, and tries of a slot', () => {
    const twice = talk(['order', { type: 'noInput' }, { type: 'noInput' }], seeking([], { silences: 2, tries: 5 }));
    expect(said(twice)).toBe('Goodbye.');
    const strict = teaShop((draft) => {
      draft['noMatch'] = { prompts: ['Sorry?'], tries: 5, giveUp: 'Goodbye.' };
      const [form] = draft['forms'] as { slots: { tries?: number }[] }[];
      form!.slots[0]!.tries = 1;
    });
    expect(said(talk(['order', 'la la'], scripted(strict)))).toBe('Passing you on.');
  });
});

describe('when nothing is understood', () => {
  it('says the prompts in turn and then hands over', () => {
    expect(talk(['la la', 'la', 'du']).all.map(said)).toEqual(['Sorry?', 'Still not.', 'Passing you on.']);
  });

  it('gives up where there is no desk', () => {
    const alone = teaShop((draft) => {
      draft['desks'] = [];
      draft['noMatch'] = { prompts: ['Sorry?'], tries: 2, giveUp: 'Goodbye.' };
    });
    const result = talk(['la la', 'hm'], scripted(alone));
    expect(said(result)).toBe('Goodbye.');
    expect(finalOutcome(result.state)).toBe('abandoned');
  });

  it('has words of its own for silence, and gives up in the end', () => {
    const { all, state } = talk(['order', { type: 'noInput' }, { type: 'noInput' }, { type: 'noInput' }]);
    expect(all.map(said)).toEqual([
      'How many?',
      'Are you still there? How many?',
      'Take your time. I am still here. How many?',
      'Goodbye.',
    ]);
    expect(finalOutcome(state)).toBe('abandoned');
  });

  it('treats a signal without words as a failed try', () => {
    expect(said(talk(['order', { type: 'signal', signal: 'sticker' }]))).toBe('A number, please.');
  });
});

describe('a step', () => {
  it('does not change the state it was given', () => {
    const before = talk(['order two green tea']).state;
    const copy = structuredClone(before);
    step(scripted(), before, { type: 'text', text: 'collect', vectors: NO_VECTORS, now: NOW });
    expect(before).toEqual(copy);
  });

  it('leaves a form in the middle as abandoned when the customer hangs up', () => {
    expect(finalOutcome(talk(['order', { type: 'hangUp' }]).state)).toBe('abandoned');
  });

  it('refuses a choice of an intent that is not there', () => {
    expect(talk([{ type: 'choice', intent: 'nothing' }]).trace.reader).toBe('no match');
  });
});
