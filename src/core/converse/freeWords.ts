import type { EntityKind } from '../bot/document.js';
import type { Language } from '../language/language.js';
import { tokenise } from '../text/tokens.js';
import { bareNumber } from './fits.js';

/** Kinds whose value may be any words, so that the whole answer is taken when the slot was asked for. */
export const TAKES_ANY_WORDS: readonly (EntityKind | undefined)[] = ['free', 'person', 'address', 'country'];

const LONGEST_FREE_VALUE = 500;

/** The words of an answer that are its value. */
export function freeValue(text: string, { freeWords }: Language): string {
  const trimmed = text.trim();
  const value = trimmed.slice(freeWords.leadIn.exec(trimmed)?.[0].length ?? 0).replace(freeWords.tail, '');
  return (value === '' ? trimmed : value).slice(0, LONGEST_FREE_VALUE);
}

const MOST_NAME_WORDS = 5;

function mayBeName(value: string, { freeWords }: Language): boolean {
  const { tokens } = tokenise(value);
  if (tokens.length === 0 || tokens.length > MOST_NAME_WORDS) return false;
  if (tokens.some(({ norm }) => !/^\p{L}+$/u.test(norm))) return false;
  const capital = /^\p{Lu}/u.test(tokens[0]!.text);
  if (
    tokens.some(({ norm, text }) => freeWords.isNoName(norm) && !(capital && /^\p{Lu}/u.test(text) && norm.length > 3))
  )
    return false;
  return capital || tokens.length > 1 || !freeWords.describes(tokens[0]!.norm);
}

function mayBeAddress(value: string, { freeWords }: Language): boolean {
  const { tokens } = tokenise(value);
  const words = tokens.filter(({ norm }) => /\p{L}/u.test(norm));
  if (words.length === 0) return false;
  return /\d/.test(value)
    ? true
    : freeWords.isPlace(value) || (words.length > 1 && words.some(({ text }) => /^\p{Lu}\p{L}/u.test(text)));
}

function mayBeCountry(value: string, { freeWords, dictionary }: Language): boolean {
  const { tokens } = tokenise(value);
  return (
    tokens.length <= 3 &&
    tokens.every(({ norm }) => /^\p{L}+$/u.test(norm) && !freeWords.isNoName(norm)) &&
    tokens.some(({ norm, text }) => !dictionary.has(norm) || /^\p{Lu}/u.test(text))
  );
}

/** Whether some words can be a value of a kind that takes any words. */
export function mayBe(kind: EntityKind | undefined, value: string, language: Language): boolean {
  if (!/\p{L}/u.test(value)) return false;
  if (kind === 'person') return mayBeName(value, language);
  if (kind === 'country') return mayBeCountry(value, language);
  if (kind === 'address') return mayBeAddress(value, language);
  return kind === 'free' && bareNumber(value, language) === null;
}
