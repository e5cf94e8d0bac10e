import type { Language } from '../language/language.js';

/** Numbers from 0 up to 1, of a seed. */
export type Random = () => number;

/** A way in which what customers write differs from what designers write. */
export interface Noise {
  name: string;
  /** What it does, as a sentence for people. */
  means: string;
  /**
   * Puts noise into a message.
   * @param strength 0 (nothing) to 1
   */
  apply: (text: string, strength: number, random: Random, language: Language) => string;
}

/** One of some, at random. */
export const oneOf = <Item>(items: readonly Item[], random: Random): Item =>
  items[Math.floor(random() * items.length)]!;

const WORD = /\p{L}[\p{L}'’]*/gu;

/** Replaces words at random. @param change gives what a word becomes, or `null` to leave it */
export const changeWords = (text: string, change: (word: string) => string | null): string =>
  text.replace(WORD, (word) => change(word) ?? word);
