import { addDays } from 'date-fns';
import { describe, expect, it } from 'vitest';
import type { EntityKind } from '../bot/document.js';
import { freeValue } from '../converse/freeWords.js';
import { hear, partsOf } from '../converse/hear.js';
import { bareNumber, contentStems } from '../converse/fits.js';
import { dateFinder, timeFinder } from '../recognise/finders/date.js';
import type { Finder } from '../recognise/finders/finder.js';
import { listFinder } from '../recognise/finders/list.js';
import { moneyFinder } from '../recognise/finders/money.js';
import { numberFinder } from '../recognise/finders/number.js';
import { prepareSpeller } from '../text/spelling.js';
import { tokenise } from '../text/tokens.js';
import { languageNamed, languageOf, LANGUAGES } from './index.js';
import type { Language } from './language.js';
import { said, type Word } from './word.js';

const NUMBERS = new Map([
  ['zwei', 2],
  ['drei', 3],
]);

function readCount(words: readonly Word[], at: number) {
  const value = NUMBERS.get(said(words, at));
  return value === undefined ? null : { value, next: at + 1 };
}

/** Another language, as far as these tests speak it. */
const GERMAN: Language = {
  ...LANGUAGES.en,
  dictionary: new Map([
    ['bitte', 10],
    ['kuchen', 10],
  ]),
  readAs: (tokens, at) => tokens[at]!.norm,
  numbers: { ...LANGUAGES.en.numbers, units: NUMBERS, readCount, isPronoun: () => false, isHalf: () => false },
  days: {
    readers: [
      (words, at, { today }) => {
        const day = addDays(today, 1);
        return said(words, at) === 'morgen' ? { from: day, to: day, next: at + 1 } : null;
      },
    ],
    readRange: () => null,
    noDayAt: () => -1,
    isOfDay: (word) => word.said === 'morgen',
  },
  times: {
    ...LANGUAGES.en.times,
    isOfTime: (word) => word.said === 'uhr',
    readTime(words, at) {
      const hour = readCount(words, at);
      return hour && said(words, hour.next) === 'uhr'
        ? { from: hour.value * 60, to: hour.value * 60, next: hour.next + 1, certain: true, partOfDay: false }
        : null;
    },
  },
  readMoney(words, at) {
    const count = readCount(words, at);
    return count && said(words, count.next) === 'euro'
      ? { amount: count.value, currency: 'EUR', next: count.next + 1 }
      : null;
  },
  spelling: { ...LANGUAGES.en.spelling, stem: (word) => word.replace(/(?:en|e|n)$/, '') },
  clauses: {
    ...LANGUAGES.en.clauses,
    steeringOf: (folded) => (folded === 'ja' ? 'yes' : null),
    steeringHead: (folded) => (folded.startsWith('nein ') ? { steering: 'no', words: 1 } : null),
    steeringTail: () => null,
    asksQuestion: (folded) => /^(?:wann|wo) /.test(folded),
    requests: (folded) => folded.startsWith('ich mochte '),
    joint: /\s+und\s+(?=ich\b)/giu,
  },
  figures: { ...LANGUAGES.en.figures, isAround: (word) => word === 'bitte', namesNoValue: (word) => word === 'die' },
  freeWords: { ...LANGUAGES.en.freeWords, leadIn: /^ich heiße /iu, tail: /,? bitte$/iu },
};

const NOW = '2026-03-04T09:30';

function found(finder: Finder, kind: EntityKind, text: string, language: Language) {
  const entity = {
    name: 'it',
    kind,
    values: [{ id: '1', value: 'Rose', synonyms: ['rote Rose'] }],
    misspellings: true,
  };
  const find = finder.prepare(entity, { language, region: 'DE', vocabulary: new Set() });
  return find(tokenise(text), NOW).map(({ start, end, value }) => [text.slice(start, end), value]);
}

describe('a language', () => {
  it('is that of a tag, whatever its country; English where there is no folder for it', () => {
    expect(languageNamed('en-GB')).toBe(LANGUAGES.en);
    expect(languageNamed('EN')).toBe(LANGUAGES.en);
    for (const tag of ['xx', 'constructor', '']) expect(languageNamed(tag), tag).toBeUndefined();
    expect(languageOf({ languages: ['xx', 'en'] })).toBe(LANGUAGES.en);
    expect(languageOf({ languages: [] })).toBe(LANGUAGES.en);
  });

  it.each<[Finder, EntityKind, string, string, unknown]>([
    [numberFinder, 'number', 'bitte drei', 'drei', 3],
    [dateFinder, 'date', 'lieber morgen bitte', 'morgen', '2026-03-05'],
    [timeFinder, 'time', 'um drei uhr', 'drei uhr', '03:00'],
    [moneyFinder, 'money', 'nur zwei Euro', 'zwei Euro', { amount: 2, currency: 'EUR' }],
    [listFinder, 'list', 'die roten Rosen', 'roten Rosen', 'Rose'],
  ])('tells the finders its words: %#', (finder, kind, text, words, value) => {
    expect(found(finder, kind, text, GERMAN)).toEqual([[words, value]]);
  });

  it('leaves the finders no words of another', () => {
    expect(found(numberFinder, 'number', 'three', GERMAN)).toEqual([]);
    expect(found(dateFinder, 'date', 'tomorrow, on Friday or 3 May', GERMAN)).toEqual([]);
    expect(found(timeFinder, 'time', 'at half past three', GERMAN)).toEqual([]);
    expect(found(moneyFinder, 'money', 'a fiver', GERMAN)).toEqual([]);
  });

  it('tells the speller which words there are', () => {
    const speller = prepareSpeller(new Set(), GERMAN);
    const mend = (word: string) => speller.mend(tokenise(word).tokens[0]!);
    expect(mend('kuchn')).toBe('kuchen');
    expect(mend('kuchen')).toBeNull();
    expect(mend('tomorow')).toBeNull();
  });

  it('tells what steers a conversation, what asks and where wishes part', () => {
    const steering = (text: string) => hear(text, GERMAN).clauses.map((clause) => clause.steering ?? clause.text);
    expect(steering('ja')).toEqual(['yes']);
    expect(steering('nein morgen')).toEqual(['no', 'morgen']);
    expect(hear('yes', GERMAN).onlySteers).toBe(false);
    expect(hear('wann kommt es', GERMAN).content[0]!.question).toBe(true);
    expect(hear('when does it come', GERMAN).content[0]!.question).toBe(false);
    const parts = partsOf(hear('ich möchte Rosen und ich möchte Kuchen', GERMAN));
    expect(parts.map(({ text }) => text)).toEqual(['ich möchte Rosen', 'ich möchte Kuchen']);
    expect(parts.every(({ request }) => request)).toBe(true);
  });

  it('tells what an answer is besides its little words', () => {
    expect(bareNumber('drei bitte', GERMAN)?.value).toBe(3);
    expect(bareNumber('three please', GERMAN)).toBeNull();
    expect(contentStems('die Rosen', GERMAN)).toEqual(['ros']);
    expect(freeValue('Ich heiße Wren Allard, bitte', GERMAN)).toBe('Wren Allard');
  });
});
