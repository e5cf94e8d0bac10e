import { RE2JS, RE2JSSyntaxException } from 're2js';

/** A pattern that cannot be used, as a sentence. */
export class PatternError extends Error {}

/** A pattern that is matched in time linear in the text, whatever the pattern. */
export type Pattern = ReturnType<typeof RE2JS.compile>;

/** A stretch of a text. Offsets are UTF-16 code units. */
interface Place {
  start: number;
  end: number;
}

const MOST_KEPT = 2000;
const kept = new Map<string, Pattern>();

/**
 * Compiles a pattern for matching without regard to case; each is compiled once.
 * @throws PatternError on one that cannot be read or that would match empty text
 */
export function compilePattern(source: string): Pattern {
  const known = kept.get(source);
  if (known) return known;
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
  if (kept.size >= MOST_KEPT) kept.clear();
  kept.set(source, pattern);
  return pattern;
}

/**
 * What a pattern costs for each sign of a message: the steps of its program. An order number of letters and figures has
 * about ten; repetitions with a number multiply what they repeat.
 */
export const weightOf = (pattern: Pattern): number => pattern.programSize();

/** The heaviest pattern that is taken: it reads 4,000 signs in some 30 ms at worst. */
export const HEAVIEST_PATTERN = 300;
/** The most that all patterns of a bot weigh together. */
export const HEAVIEST_PATTERNS = 20_000;

/** A text is looked through in windows that overlap, so that what is found costs no look to the end of the text. */
const WINDOW = 500;
const OVERLAP = 100;
/** What the looks through one window may cost, in steps; each costs the pattern's weight times the rest of the window. */
const MOST_STEPS = 2_000_000;

/**
 * Where a pattern is found in a text, in its order. What it costs is linear in the text, whatever the pattern: in a text
 * of more than 500 signs a match of more than 100 may be passed over, and so may matches of a heavy pattern that lie close
 * together.
 */
export function findPattern(text: string, pattern: Pattern): Place[] {
  const found: Place[] = [];
  const weight = weightOf(pattern);
  for (let from = 0; ; from += WINDOW - OVERLAP) {
    const to = Math.min(text.length, from + WINDOW);
    const matcher = pattern.matcher(text.slice(from, to));
    let steps = 0;
    while (steps < MOST_STEPS && matcher.find()) {
      const place = { start: from + matcher.start(), end: from + matcher.end() };
      steps += weight * (to - place.start);
      // What touches a border that the text has not may be half of something.
      const isCut = (from > 0 && place.start === from) || (to < text.length && place.end === to);
      if (!isCut && place.start >= (found.at(-1)?.end ?? 0)) found.push(place);
    }
    if (to === text.length) return found;
  }
}
