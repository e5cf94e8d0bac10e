import { describe, expect, it } from 'vitest';
import { LANGUAGES } from '../language/index.js';
import { hear as hearIn, partsOf, type Known } from './hear.js';
import { foldPhrase } from '../text/foldPhrase.js';
import type { Steering } from './steering.js';

const { asksQuestion, steeringOf } = LANGUAGES.en.clauses;
const hear = (text: string, known?: Known) => hearIn(text, LANGUAGES.en, known);

/** What each clause does; the words of those that speak of the matter. */
const heard = (text: string) => hear(text).clauses.map(({ steering, text: words }) => steering ?? words);

describe('a clause that steers', () => {
  const TABLE: Partial<Record<Steering, string[]>> = {
    leave: [
      'cancel',
      'please cancel',
      'never mind',
      'actually never mind',
      'forget it',
      'I changed my mind',
      "I don't want to go on",
      'leave it',
      "let's leave it there",
      'call it off',
    ],
    keep: ["don't", 'keep it', "don't cancel anything", "I don't want to cancel", 'keep the order'],
    person: [
      'can I speak to someone',
      'human',
      "can't I just have a word with somebody",
      'put me through to one of your team',
      'I want to talk to a real person',
      'can somebody ring me back',
    ],
    help: ['what can you do?', 'help', 'what are my options'],
    startOver: ['can we start again', 'start over', 'from the beginning please'],
    repeat: ['what?', 'pardon', 'can you say that again', "sorry, I didn't catch that".split(', ')[1]!],
    nothing: ['nothing', 'nothing else thanks', "that's all"],
    neither: ['neither', 'none of them', 'something else'],
    both: ['both', 'both please'],
    unknown: ['dunno', "I don't know", "I haven't got the number to hand", "there's no number", 'no idea yet'],
    indifferent: ["I don't mind", 'any time is fine', 'whatever you have', 'as soon as possible', 'up to you'],
    refusal: ["I'd rather not", "I'd rather not say", 'why do you need my name?', 'none of your business'],
    annoyed: ['this is ridiculous', 'you are useless', 'are you a robot?', 'am I talking to a real person'],
    asBefore: ['same address as before', 'the same as last time'],
    yes: ['yes', 'Yep!', "that's perfect", 'go ahead', 'correct', 'sounds good', 'yes please', "that's both of them"],
    no: ['no', 'nope', 'not quite', "that's wrong", "that's not right"],
    wait: ['hang on a moment', '1 moment please', 'wait'],
    ok: ['ok', 'right then', 'lovely'],
    thanks: ['thanks', 'thank you so much', 'cheers'],
    greeting: ['hello', 'good morning', 'hi there'],
  };

  it.each(Object.entries(TABLE).flatMap(([steering, texts]) => texts.map((text) => [text, steering])))(
    '“%s” is %s',
    (text, steering) => {
      expect(steeringOf(foldPhrase(text))).toBe(steering);
    },
  );

  it.each([
    'can I drop it off on Tuesday',
    "I'll leave it with you on Friday",
    'please leave it by the gate if I am out',
    'the brakes will not stop it',
    'I need a person to look at it',
    'leave it with the neighbour please then',
    'stop by on Friday',
    'two people',
    'is this for one person',
    'november',
    'another one',
    'yesterday',
    'the third',
    'okra',
    'cancel order LM-20418',
    'what time do you close',
  ])('“%s” steers nothing', (text) => {
    expect(hear(text).clauses.map(({ steering }) => steering)).toEqual([null]);
  });
});

describe('a message', () => {
  it.each<[string, string[]]>([
    ["that's better now, yes", ['yes', 'yes']],
    ["that's better now yes", ['yes', 'yes']],
    ['yes please, and can you tell me where you are', ['yes', 'and can you tell me where you are']],
    ['ok what will that cost me', ['ok', 'what will that cost me']],
    ['no I want to change the day', ['no', 'I want to change the day']],
    ['forget it I want to buy a chain', ['leave', 'I want to buy a chain']],
    ['no, keep it', ['no', 'keep']],
    ['no don’t', ['no', 'keep']],
    ['Wednesday, er no, Thursday', ['Wednesday', 'no', 'Thursday']],
    ["you know what, leave it, cancel this, I don't want to go on", ['filler', 'leave', 'leave', 'leave']],
    ["I don't want it on Monday, Tuesday is better", ["I don't want it on Monday", 'Tuesday is better']],
    ['no idea what it costs', ['no idea what it costs']],
  ])('is cut where steering stands apart: %s', (text, wanted) => {
    expect(heard(text)).toEqual(wanted);
  });

  it('keeps its offsets and reads misspelt words as they were mended', () => {
    const text = 'plese cancle, and tell me why';
    const { clauses } = hear(text, {
      mendings: [
        { start: 6, end: 12, text: 'cancle', to: 'cancel' },
        { start: 0, end: 5, text: 'plese', to: 'please' },
      ],
    });
    expect(clauses.map(({ start, end }) => text.slice(start, end))).toEqual(['plese cancle', 'and tell me why']);
    expect(clauses[0]!.steering).toBe('leave');
  });

  it('takes no value for a steering word', () => {
    expect(hear('no flowers', { values: [{ start: 0, end: 10 }] }).clauses[0]!.steering).toBeNull();
  });

  it('takes a value that was asked for as the answer, whatever else it may mean', () => {
    const evening = { answers: [{ start: 0, end: 7 }] };
    expect(hear('evening please').clauses[0]!.steering).toBe('greeting');
    expect(hear('evening please', evening).clauses[0]!.steering).toBeNull();
    // "One" of "one moment" is no answer.
    expect(hear('one moment', { answers: [{ start: 0, end: 3 }] }).clauses[0]!.steering).toBe('wait');
  });

  it.each<[string, string[]]>([
    ['cancel LM-20418 and tell me where LM-20419 is', ['cancel LM-20418', 'tell me where LM-20419 is']],
    ['a chain and two tyres', []],
    ['12 Sluice Lane, Dunlow', []],
    ['I need a bin and when is the tip open', ['I need a bin', 'when is the tip open']],
    ['yes please, and can you tell me where you are', []],
  ])('has parts where one wish may end and another begin: %s', (text, wanted) => {
    const parts = partsOf(hear(text)).map((part) => part.text);
    expect(parts.length > 1 ? parts : []).toEqual(wanted);
  });

  it('tells a question from a polite request and from the offer of a value', () => {
    for (const text of [
      'what time do you shut?',
      'open on Sunday?',
      'can you tell me where you are',
      'do you deliver',
      'are you sure you close at 6?',
    ])
      expect(asksQuestion(foldPhrase(text)), text).toBe(true);
    for (const text of [
      'can you deliver them?',
      'four please',
      'is Friday ok?',
      'how about Friday?',
      'could I have two',
    ])
      expect(asksQuestion(foldPhrase(text)), text).toBe(false);
  });
});
