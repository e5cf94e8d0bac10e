import type { Token } from '../text/tokens.js';
import type { ModelText } from './features.js';
import type { Candidate } from './finders/finder.js';

/** Any day: what a text is masked with does not depend on it. */
export const SOME_DAY = '2026-01-01T12:00';

/** Words as they are read; a word that lacked a space is two. */
function readWords(tokens: readonly Token[]): string[] {
  const words: string[] = [];
  for (const { mended } of tokens) {
    if (mended.includes(' ')) words.push(...mended.split(' '));
    else words.push(mended);
  }
  return words;
}

/** The words of a text or of a part of it, and the same with `{entity}` in the place of each value. */
export function modelText(text: string, tokens: readonly Token[], entities: readonly Candidate[]): ModelText {
  const masked: string[] = [];
  let value = 0;
  let from = 0;
  for (const token of tokens) {
    while (value < entities.length && entities[value]!.start < token.end) {
      const { start, end, entity } = entities[value++]!;
      if (start < from || end <= token.start) continue;
      masked.push(`{${entity}}`);
      from = end;
    }
    if (token.start >= from) masked.push(...readWords([token]));
  }
  return { text, words: readWords(tokens), masked };
}
