import { describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import { DEFAULT_COSTS, type BotDocument } from '../bot/document.js';
import { NO_VECTORS } from '../encode/encoder.js';
import { gateFigures } from '../measure/gateFigures.js';
import { gateOf } from '../recognise/gate.js';
import { openRecogniser } from '../recognise/open.js';
import { prepareTraining } from '../recognise/train.js';
import { entriesOf, heldOf } from '../text/named.js';
import { readThrough } from './readThrough.js';
import { startConversation, type ConversationState } from './state.js';
import { step } from './step.js';

const NOW = '2026-03-04T09:30';
/** Names that every object has from its making. */
const NAMES = ['toString', 'constructor', 'valueOf', 'hasOwnProperty', 'isPrototypeOf', '__proto__'];

/** The tea shop with something called otherwise, wherever it is named. */
const renamed = (from: string, to: string): BotDocument => {
  const text = JSON.stringify(teaShop()).replaceAll(`"${from}"`, JSON.stringify(to)).replaceAll(`{${from}`, `{${to}`);
  return JSON.parse(text) as BotDocument;
};

function talk(document: BotDocument, ...lines: string[]): { state: ConversationState; said: string } {
  const recogniser = openRecogniser(document, prepareTraining(document).train(NO_VECTORS));
  let state = startConversation('40001');
  let said = '';
  for (const text of lines) {
    const result = step(recogniser, state, { type: 'text', text, vectors: NO_VECTORS, now: NOW });
    // What is kept and sent is plain data.
    state = JSON.parse(JSON.stringify(result.state)) as ConversationState;
    said = result.says.map((one) => one.text).join(' ');
  }
  return { state, said };
}

describe.each(NAMES)('%s', (name) => {
  const ORDER = ['order some tea', 'two', 'green tea', 'collection', 'yes'];

  it.each(['amount', 'tea', 'way'])('as the name of the slot %s is asked for, filled, read back and kept', (slot) => {
    const usual = talk(teaShop(), ...ORDER);
    const { state, said } = talk(renamed(slot, name), ...ORDER);
    expect(said).toBe(usual.said);
    expect(state.outcome).toBe('completed');
    const held = state.last!.values;
    expect(heldOf(held, name)).toEqual(heldOf(usual.state.last!.values, slot));
    expect(entriesOf(held)).toHaveLength(entriesOf(usual.state.last!.values).length);
    const asked = talk(renamed(slot, name), 'order some tea');
    expect(asked.said).toBe(talk(teaShop(), 'order some tea').said);
  });

  it('as the name of an intent, a form or an entity is spoken of, gated and read through', () => {
    for (const from of ['order_tea', 'order', 'size']) {
      const document = renamed(from, name);
      expect(talk(document, ...ORDER).state.outcome).toBe('completed');
      const recogniser = openRecogniser(document, prepareTraining(document).train(NO_VECTORS));
      const [form] = document.forms;
      const intent = document.intents.find((one) => one.form === form!.name)!;
      expect(readThrough(recogniser, intent.name, form!, NOW).length).toBeGreaterThan(4);
      const message = { expected: intent.name, top: [{ intent: intent.name, confidence: 0.9 }] };
      const { intents } = gateFigures([message], gateOf(document), DEFAULT_COSTS);
      expect(heldOf(intents, intent.name)).toMatchObject({ accepted: 1, wrong: 0 });
      expect(entriesOf(intents)).toHaveLength(1);
    }
  });
});

describe('the same as before', () => {
  /** Two forms with a slot of one name: a bed of one size, a shirt of another. */
  const shop = teaShop((draft) => {
    const slot = (name: string, entity: string) => ({ name, entity, required: true, prompts: [`Which ${name}?`] });
    draft['entities'] = [
      { name: 'bed_size', kind: 'list', values: ['king', 'single'] },
      { name: 'shirt_size', kind: 'list', values: ['small', 'large'] },
    ];
    draft['intents'] = [
      { name: 'bed', form: 'bed', utterances: ['I want a bed', 'order a bed', 'a new bed please'] },
      { name: 'shirt', form: 'shirt', utterances: ['I want a shirt', 'order a shirt', 'a new shirt please'] },
      { name: 'again', form: 'again', utterances: ['send a mattress', 'I need a mattress', 'a mattress please'] },
    ];
    draft['forms'] = [
      { name: 'bed', slots: [slot('size', 'bed_size'), slot('guests', 'number')], done: 'Bed {size} ordered.' },
      { name: 'shirt', slots: [slot('size', 'shirt_size')], done: 'Shirt {size} ordered.' },
      { name: 'again', slots: [slot('width', 'bed_size'), slot('nights', 'number')], done: 'Mattress {width}.' },
    ];
  });
  const BED = ['I want a bed', 'king', 'two'];

  it('is of the same entity, not of a slot that is called the same', () => {
    expect(talk(shop, ...BED, 'I want a shirt').said).toContain('Which size?');
    const { state } = talk(shop, ...BED, 'I want a shirt', 'same as before');
    expect(heldOf(state.open!.values, 'size')).toBeUndefined();
  });

  it('is found in a slot that is called otherwise, but no number is another number', () => {
    const { state } = talk(shop, ...BED, 'send a mattress', 'same as before');
    expect(heldOf(state.open!.values, 'width')).toBe('king');
    expect(state.open!.asked).toBe('nights');
    const { state: after } = talk(shop, ...BED, 'send a mattress', 'same as before', 'same as before');
    expect(heldOf(after.open!.values, 'nights')).toBeUndefined();
  });
});
