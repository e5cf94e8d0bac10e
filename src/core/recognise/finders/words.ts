import type { Language } from '../../language/language.js';
import type { Word } from '../../language/word.js';
import type { TokenisedText } from '../../text/tokens.js';
import type { Value } from '../value.js';
import type { Found } from './finder.js';

const lastRead = new WeakMap<TokenisedText, Word[]>();

/** The words of a text, as numbers, dates and times are read from them. */
export function wordsOfText(text: TokenisedText, { readAs }: Language): Word[] {
  const known = lastRead.get(text);
  if (known) return known;
  const words: Word[] = [];
  let before = 0;
  for (const [at, { start, end }] of text.tokens.entries()) {
    const between = text.text.slice(before, start);
    const said = readAs(text.tokens, at);
    said.split(' ').forEach((part, index) => {
      words.push({
        said: part,
        start,
        end,
        gap: index === 0 ? between.trim() : '',
        glued: index === 0 && between === '' && words.length > 0,
      });
    });
    before = end;
  }
  lastRead.set(text, words);
  return words;
}

/** A value read from the words that begin at a place. */
export interface WordReading {
  value: Value;
  /** Index after the last word. */
  next: number;
  /** How it was found; computed where it is not said. */
  match?: Found['match'];
}

/** Reads values from left to right, each beginning after the last. @param read gives `null` where no value begins */
export function scanWords(words: readonly Word[], read: (at: number) => WordReading | null): Found[] {
  const found: Found[] = [];
  for (let at = 0; at < words.length;) {
    const reading = read(at);
    if (reading) {
      found.push({
        start: words[at]!.start,
        end: words[reading.next - 1]!.end,
        value: reading.value,
        match: reading.match ?? 'computed',
      });
      at = reading.next;
    } else at++;
  }
  return found;
}
