import { RE2JS, RE2JSSyntaxException } from 're2js';

/** A pattern that cannot be used, as a sentence. */
export class PatternError extends Error {}

/** A pattern that is matched in time linear in the text, whatever the pattern. */
export type Pattern = ReturnType<typeof RE2JS.compile>;

/**
 * Compiles a pattern for matching without regard to case.
 * @throws PatternError on one that cannot be read or that would match empty text
 */
export function compilePattern(source: string): Pattern {
  let pattern: Pattern;
  try {
    pattern = RE2JS.compile(source, RE2JS.CASE_INSENSITIVE);
  } catch (error) {
    if (!(error instanceof RE2JSSyntaxException)) throw error;
    const reason = error.message.replace(/^error parsing regexp:\s*/, '').replace('(?i)', '');
    throw new PatternError(`the pattern "${source}" cannot be read: ${reason}`);
  }
  if (pattern.matches(''))
    throw new PatternError(`the pattern "${source}" matches empty text; make a part of it required`);
  return pattern;
}
