import fc from 'fast-check';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { HOSTILE_TEXTS } from '../../../tests/hostileTexts.js';
import { teaShop } from '../../../tests/teaShop.js';
import { BUILT_IN_KINDS } from '../bot/document.js';
import { NO_VECTORS } from '../encode/encoder.js';
import { startConversation } from '../converse/state.js';
import { step } from '../converse/step.js';
import { numberFinder } from './finders/number.js';
import { LANGUAGES } from '../language/index.js';
import { wordsOfText } from './finders/words.js';
import { tokenise } from '../text/tokens.js';
import { readDay } from './finders/dates/days.js';
import { readLocalTime } from './finders/dates/calendar.js';
import { openRecogniser, type Recogniser } from './open.js';
import { prepareTraining } from './train.js';

const NOW = '2026-03-04T09:30';

/** Texts that people and machines write by mistake or to do harm. */
const piece = fc.oneof(
  fc.constantFrom(
    '100000000',
    'weeks',
    'from',
    'today',
    'constructor',
    '__proto__',
    'toString',
    'next',
    '2',
    'the',
    'day',
    'after',
    'minus',
    'half a',
    '31',
    'february',
    '£',
    '-',
    '/',
    '<b>',
    '😀',
    '\u0301',
    '\ud800',
  ),
  fc.string({ maxLength: 6 }),
);
const odd = fc.array(piece, { maxLength: 12 }).map((parts) => parts.join(' '));

function everyKind(pattern = '\\w+-\\d+-[A-Z]+-\\d'): Recogniser {
  const bot = teaShop((draft) => {
    const values = Array.from({ length: 2000 }, (_, index) => `value${index.toString(36)}word`);
    const kinds = [...BUILT_IN_KINDS, 'quantity'];
    (draft['entities'] as object[]).push(
      { name: 'code', kind: 'pattern', pattern },
      { name: 'many', kind: 'list', misspellings: true, values },
      ...kinds.map((kind) => ({ name: `a_${kind}`, kind })),
    );
    const slots = (draft['forms'] as { slots: object[] }[])[0]!.slots;
    for (const name of ['code', 'many', ...kinds.map((kind) => `a_${kind}`)])
      slots.push({ name: `s_${name}`, entity: name });
  });
  return openRecogniser(bot, prepareTraining(bot).train(NO_VECTORS));
}

describe('a finder that fails in one text', () => {
  afterEach(() => {
    vi.restoreAllMocks();
  });

  it('is named with the utterance and with the message, and all else is learned and read', () => {
    const prepare = numberFinder.prepare.bind(numberFinder);
    vi.spyOn(numberFinder, 'prepare').mockImplementation((...given) => {
      const find = prepare(...given);
      return (text, now) => {
        if (text.text.includes('thirteen')) throw new RangeError('out of numbers');
        return find(text, now);
      };
    });
    const shop = teaShop((draft) => {
      (draft['intents'] as { utterances: string[] }[])[0]!.utterances.push('thirteen <tea>green tea</tea>');
    });
    const model = prepareTraining(shop).train(NO_VECTORS);
    expect(model.unread).toEqual([{ intent: 'order_tea', text: 'thirteen green tea', entities: ['number'] }]);
    const recognition = openRecogniser(shop, model).recognise('order thirteen green tea', NO_VECTORS, NOW);
    expect(recognition.failed).toEqual(['number']);
    expect(recognition.slots).toMatchObject([{ slot: 'tea', value: 'green tea' }]);
  });
});

describe('a text that means harm, or comes of a slip', () => {
  const recogniser = everyKind();

  it.each(HOSTILE_TEXTS)('is read, and nothing fails in it: %s', (_, text) => {
    const recognition = recogniser.recognise(text, NO_VECTORS, NOW);
    expect(recognition.failed).toEqual([]);
    for (const { start, end } of recognition.entities)
      expect(start >= 0 && end <= text.length && start < end).toBe(true);
  });

  it('makes no turn of a conversation fail', () => {
    for (const [, text] of HOSTILE_TEXTS) {
      let state = startConversation('1');
      for (const said of ['order two green tea', text, 'collect', text, 'no', text])
        state = step(recogniser, state, { type: 'text', text: said, vectors: NO_VECTORS, now: NOW }).state;
      expect(state.turns).toBe(6);
    }
  });

  it('has no more steps the more days it reckons from each other', () => {
    let steps = 0;
    const counted = (text: string): number => {
      const words = wordsOfText(tokenise(text), LANGUAGES.en);
      const watched = new Proxy(words, {
        get(list, key, receiver) {
          if (typeof key === 'string' && /^\d+$/.test(key)) steps++;
          return Reflect.get(list, key, receiver) as unknown;
        },
      });
      steps = 0;
      readDay(watched, 0, { today: readLocalTime(NOW), region: 'GB', readers: LANGUAGES.en.days.readers });
      return steps;
    };
    const [few, many] = [counted('the day after '.repeat(10)), counted('the day after '.repeat(100))];
    expect(many).toBeLessThan(few * 1.5);
  });

  it('is read whatever it is made of, also when it was taught', () => {
    fc.assert(
      fc.property(odd, (text) => {
        expect(recogniser.recognise(text, NO_VECTORS, NOW).failed).toEqual([]);
      }),
      { numRuns: 150 },
    );
    const taught = teaShop((draft) => {
      (draft['intents'] as { utterances: string[] }[])[0]!.utterances.push(
        '100000000 weeks from today',
        '2 next constructor',
      );
    });
    expect(prepareTraining(taught).train(NO_VECTORS).intents).toHaveLength(3);
  });

  it('makes no valid bot fail, whatever the bot asks for and was taught', () => {
    const word = fc.constantFrom(
      'rose',
      'two',
      'next',
      'a5',
      'o2',
      'half',
      'constructor',
      '26"',
      'may',
      'x',
      'no',
      '12 mill',
    );
    const entity = fc.oneof(
      fc.constantFrom(...BUILT_IN_KINDS).map((kind) => ({ kind })),
      fc.constant({ kind: 'quantity' }),
      fc.constant({ kind: 'free' }),
      fc
        .constantFrom('A-\\d{3}', '\\w+', '[a-z]+', '\\d-?\\d?', '(?:ab)+')
        .map((pattern) => ({ kind: 'pattern', pattern })),
      fc
        .record({
          misspellings: fc.boolean(),
          values: fc.uniqueArray(
            fc.array(word, { minLength: 1, maxLength: 3 }).map((words) => words.join(' ')),
            { minLength: 1, maxLength: 6 },
          ),
        })
        .map((list) => ({ kind: 'list', ...list })),
    );
    const bot = fc.record({
      entities: fc.array(entity, { minLength: 1, maxLength: 5 }),
      taught: fc.array(odd, { maxLength: 5 }),
      required: fc.boolean(),
    });
    fc.assert(
      fc.property(bot, fc.array(odd, { minLength: 1, maxLength: 4 }), ({ entities, taught, required }, texts) => {
        const shop = teaShop((draft) => {
          (draft['entities'] as object[]).push(...entities.map((own, at) => ({ name: `own_${at}`, ...own })));
          const [form] = draft['forms'] as { slots: object[] }[];
          form!.slots.push(
            ...entities.map((_, at) => ({ name: `slot_${at}`, entity: `own_${at}`, required, prompts: ['Which?'] })),
          );
          const lines = taught.map((line) => line.replaceAll(/[<>]/gu, ' ').trim()).filter((line) => line !== '');
          (draft['intents'] as { utterances: string[] }[])[0]!.utterances.push(...lines);
        });
        const model = prepareTraining(shop).train(NO_VECTORS);
        const reader = openRecogniser(shop, model);
        expect(model.unread).toEqual([]);
        let state = startConversation('1');
        for (const text of ['order two green tea', ...texts, 'yes']) {
          expect(reader.recognise(text, NO_VECTORS, NOW).failed).toEqual([]);
          const turn = step(reader, state, { type: 'text', text, vectors: NO_VECTORS, now: NOW });
          expect(turn.says.every((say) => typeof say.text === 'string')).toBe(true);
          state = turn.state;
        }
      }),
      { numRuns: 25 },
    );
  });
});
