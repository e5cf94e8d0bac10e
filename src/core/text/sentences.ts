import type { Language } from '../language/language.js';

/** A stretch of a text. Offsets are UTF-16 code units. */
export interface Stretch {
  start: number;
  end: number;
}

/** Where one sentence ends and the next begins; a line or a dash between words parts them too. Linear in any text. */
const BORDER = /[.!?;…]["'”’)]*\s|\n|\s[-–—]+\s/gu;
const EDGE = /[\s\-–—]/u;

/** Cuts a text into its sentences, without the space between them. */
export function sentencesOf(text: string): Stretch[] {
  const sentences: Stretch[] = [];
  let start = 0;
  const add = (end: number): void => {
    let [from, to] = [start, end];
    while (from < to && EDGE.test(text[from]!)) from++;
    while (to > from && EDGE.test(text[to - 1]!)) to--;
    if (to > from) sentences.push({ start: from, end: to });
  };
  for (const match of text.matchAll(BORDER)) {
    add(match.index + match[0].length);
    start = match.index + match[0].length;
  }
  add(text.length);
  return sentences;
}

const QUESTION = /\?["'”’)]*$/u;
/** How much a sentence asks for something: 1 if it only tells, 2 if it asks, 4 if it ends in a question mark. */
export function askingWeight(sentence: string, language: Language): number {
  const asks = language.asks(sentence) || QUESTION.test(sentence);
  return 1 + (asks ? 1 : 0) + (QUESTION.test(sentence) ? 2 : 0);
}
