import { compilePattern, PatternError, type Pattern } from '../../text/pattern.js';
import type { Finder, Found } from './finder.js';

const WORD = /[\p{L}\p{N}]/u;

/** A value is written as the pattern has it: in capitals when the pattern's letters all are. */
function canonical(written: string, source: string): string {
  const letters = source.replace(/\\./gu, '').replace(/[^\p{L}]/gu, '');
  return letters !== '' && letters === letters.toUpperCase() ? written.toUpperCase() : written;
}

function compiled(source: string): Pattern | null {
  try {
    return compilePattern(source);
  } catch (error) {
    if (error instanceof PatternError) return null;
    throw error;
  }
}

/** Codes that follow a pattern, in capitals or small letters, standing as words of their own. */
export const patternFinder: Finder = {
  kinds: ['pattern'],
  prepare(entity) {
    const source = entity.pattern ?? '';
    const pattern = compiled(source);
    if (pattern === null) return () => [];
    return ({ text }) => {
      const found: Found[] = [];
      const matcher = pattern.matcher(text);
      while (matcher.find()) {
        const [start, end] = [matcher.start(), matcher.end()];
        const inWord = WORD.test(text[start - 1] ?? '') || WORD.test(text[end] ?? '');
        if (!inWord) found.push({ start, end, value: canonical(text.slice(start, end), source), match: 'exact' });
      }
      return found;
    };
  },
};
