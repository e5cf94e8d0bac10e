import { compilePattern, findPattern, PatternError, type Pattern } from '../../text/pattern.js';
import type { TokenisedText } from '../../text/tokens.js';
import type { Finder, Found, Match } from './finder.js';
import { speltRuns } from './spelled.js';
import { Tries } from './tries.js';

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

/** A pattern whose separators may be left out, and the separators it has. */
interface LoosePattern {
  pattern: Pattern;
  separators: string[];
}

const SEPARATOR = /[-/ .]/;

/** The pattern with its dashes, slashes and blanks made optional; `null` where it has none. */
function loosen(source: string): LoosePattern | null {
  let loose = '';
  const separators: string[] = [];
  let inClass = false;
  for (let at = 0; at < source.length; at++) {
    const sign = source[at]!;
    if (sign === '\\') {
      const escaped = source[++at] ?? '';
      const separator = !inClass && SEPARATOR.test(escaped);
      if (separator) separators.push(escaped);
      loose += separator ? `(?:\\${escaped})?` : `\\${escaped}`;
      if (separator && source[at + 1] === '?') at++;
      continue;
    }
    if (sign === '[') inClass = true;
    if (sign === ']') inClass = false;
    if (inClass || !/[-/ ]/.test(sign)) {
      loose += sign;
      continue;
    }
    separators.push(sign);
    loose += `(?:${sign})?`;
    if (source[at + 1] === '?') at++;
  }
  if (separators.length === 0) return null;
  const pattern = compiled(loose);
  return pattern && { pattern, separators };
}

const MOST_SEPARATORS = 3;
/** Places at which separators are tried in one text, at most; a code of twelve signs and three separators has fewer. */
const MOST_TRIED = 600;
/** Longer than any code that is written without its separators. */
const LONGEST_CODE = 40;

/** Puts back the separators that a customer left out, where the pattern asks for them; `null` if it cannot be done. */
function withSeparators(written: string, strict: Pattern, separators: readonly string[], tries: Tries): string | null {
  if (!tries.take()) return null;
  if (strict.matches(written)) return written;
  const [next, ...rest] = separators;
  if (next === undefined || separators.length > MOST_SEPARATORS || written.length > LONGEST_CODE) return null;
  for (let at = 1; at < written.length; at++) {
    const whole = withSeparators(written.slice(0, at) + next + written.slice(at), strict, rest, tries);
    if (whole !== null) return whole;
  }
  return null;
}

/** A stretch of a text. */
interface Place {
  start: number;
  end: number;
}

const overlaps = (a: Place, b: Place): boolean => a.start < b.end && b.start < a.end;

/**
 * Codes that follow a pattern, standing as words of their own: in capitals or small letters, with the dash left out,
 * or spelt out ("jay five four one", "double oh seven").
 */
export const patternFinder: Finder = {
  kinds: ['pattern'],
  prepare(entity, { language }) {
    const source = entity.pattern ?? '';
    const strict = compiled(source);
    if (strict === null) return () => [];
    const loose = loosen(source);
    const value = (written: string, tries: Tries): string | null => {
      const whole = withSeparators(written, strict, loose?.separators ?? [], tries);
      return whole === null ? null : canonical(whole, source);
    };

    const written = ({ text }: TokenisedText, tries: Tries): Found[] => {
      const loosely = loose ? findPattern(text, loose.pattern) : [];
      // Whatever the pattern is found in, the looser one is found in too.
      const strictly = loose && loosely.length === 0 ? [] : findPattern(text, strict);
      const codes = (places: readonly Place[], match: Match) =>
        places.flatMap(({ start, end }): Found[] => {
          const inWord = WORD.test(text[start - 1] ?? '') || WORD.test(text[end] ?? '');
          const code = inWord ? null : value(text.slice(start, end), tries);
          return code === null ? [] : [{ start, end, value: code, match }];
        });
      return [...codes(strictly, 'exact'), ...codes(loosely, 'inflected')];
    };

    const spelt = (text: TokenisedText, tries: Tries): Found[] =>
      speltRuns(text, language).flatMap((run) =>
        findPattern(run.signs, loose?.pattern ?? strict).flatMap((place): Found[] => {
          const original = run.original(place.start, place.end);
          const code = original && value(run.signs.slice(place.start, place.end), tries);
          return code ? [{ ...original, value: code, match: 'computed' }] : [];
        }),
      );

    return (text) => {
      const kept: Found[] = [];
      const tries = new Tries(MOST_TRIED);
      for (const found of [...written(text, tries), ...spelt(text, tries)])
        if (kept.every((other) => !overlaps(found, other))) kept.push(found);
      return kept.sort((a, b) => a.start - b.start);
    };
  },
};
