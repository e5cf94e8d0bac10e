import { describe, expect, it } from 'vitest';
import { hear as hearIn } from '../../converse/hear.js';
import { LANGUAGES } from '../index.js';
import { LEADS, TAILS } from './commands.js';

const hear = (text: string) => hearIn(text, LANGUAGES.en);

describe('words that are said again and again', () => {
  /** Lead-ins and tails that are written as patterns, each said out. */
  const SAID = [
    'umm',
    'erm',
    'hmm',
    'on second thoughts',
    'id just like to',
    'i would rather',
    'i really want to',
    'anymore',
  ];
  const STEERING = ['cancel it', 'right now', 'bye', 'all right', 'i have told you'];
  const isPattern = (phrase: string) => /[^a-z ]/.test(phrase);
  const listed = [...new Set([...LEADS, ...TAILS])];
  const phrases = [...listed.filter((phrase) => !isPattern(phrase)), ...SAID, ...STEERING];

  const { isFiller } = LANGUAGES.en.clauses;
  const MOST = 50;

  /** The quickest of three, since other work holds up one or the other. In milliseconds. */
  const quickest = (work: () => void): number =>
    Math.min(
      ...[1, 2, 3].map(() => {
        const began = performance.now();
        work();
        return performance.now() - began;
      }),
    );

  it.each([
    ['', 'zzz'],
    ['zzz ', ''],
    ['', ''],
  ])('are heard at once, after “%s” and before “%s”', (before, after) => {
    for (const phrase of phrases) {
      for (const length of [60, 130, 4000, 19_000]) {
        const text = before + `${phrase} `.repeat(Math.ceil(length / (phrase.length + 1))) + after;
        expect([phrase, length, quickest(() => hear(text)) < MOST]).toEqual([phrase, length, true]);
        expect([phrase, length, quickest(() => isFiller(text)) < MOST]).toEqual([phrase, length, true]);
      }
    }
  });

  it('are of every lead-in and tail', () => {
    for (const pattern of listed.filter(isPattern))
      expect(
        SAID.filter((said) => new RegExp(`^(?:${pattern})$`).test(said)),
        pattern,
      ).not.toEqual([]);
  });

  it('are read no further than any message is', () => {
    const { text, clauses } = hear('ok '.repeat(6000));
    expect(text.length).toBeLessThanOrEqual(4000);
    expect(clauses.at(-1)!.end).toBeLessThanOrEqual(text.length);
  });
});
