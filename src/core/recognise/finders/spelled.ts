import type { TokenisedText } from '../../text/tokens.js';
import type { Language } from '../../language/language.js';
import type { Word } from '../../language/word.js';
import { wordsOfText } from './words.js';

const LONGEST_GROUP = 4;

/** One word of a code that was spelt out, with what it stands for. */
interface Spelt {
  start: number;
  end: number;
  /** Letters and digits, small. */
  signs: string;
}

/** A code spelt out over several words: `signs` of all of them, each with the word it came from. */
export interface SpeltRun {
  signs: string;
  parts: Spelt[];
  /** Offsets of the original text for a stretch of `signs`; `null` where it begins or ends within a word. */
  original(from: number, to: number): { start: number; end: number } | null;
}

/** What a word stands for in a code. @param digitsOnly whether letters count for nothing */
function speltAt(
  words: readonly Word[],
  at: number,
  settings: { language: Language; digitsOnly: boolean },
): { signs: string; next: number } | null {
  const { language, digitsOnly } = settings;
  const { spelt, numbers } = language;
  const word = words[at]!;
  const times = spelt.times.get(word.said);
  if (times !== undefined) {
    const after = words[at + 1] && speltAt(words, at + 1, settings);
    return after && after.signs.length === 1 ? { signs: after.signs.repeat(times), next: after.next } : null;
  }
  if (/^\d+$/.test(word.said)) return { signs: word.said, next: at + 1 };
  const before = words[at - 1];
  const besideDigit =
    (before !== undefined && (/\d$/.test(before.said) || isDigitWord(before.said, language))) || digitsOnly;
  if (spelt.isNought(word.said) && besideDigit) return { signs: '0', next: at + 1 };
  const unit = numbers.units.get(word.said);
  if (unit !== undefined) return { signs: String(unit), next: at + 1 };
  const ten = numbers.tens.get(word.said);
  if (ten !== undefined) {
    const one = numbers.units.get(words[at + 1]?.said ?? '');
    return one !== undefined && one > 0 && one < 10
      ? { signs: String(ten + one), next: at + 2 }
      : { signs: String(ten), next: at + 1 };
  }
  if (digitsOnly) return null;
  const letter = spelt.letters.get(word.said);
  if (letter !== undefined) return { signs: letter, next: at + 1 };
  return /^[a-z]+$/.test(word.said) && word.said.length <= LONGEST_GROUP ? { signs: word.said, next: at + 1 } : null;
}

const isDigitWord = (said: string, { spelt, numbers }: Language): boolean =>
  spelt.isNought(said) || (numbers.units.get(said) ?? 99) < 10 || spelt.times.has(said);

const lastRuns = { all: new WeakMap<TokenisedText, SpeltRun[]>(), digits: new WeakMap<TokenisedText, SpeltRun[]>() };

/**
 * Runs of words that may spell a code out: digits, names of digits and letters, single letters and short groups of them
 * ("jay five four one", "double oh seven", "i n v 3 1 0").
 * @param digitsOnly whether only digits are of interest
 */
export function speltRuns(
  text: TokenisedText,
  language: Language,
  { digitsOnly = false }: { digitsOnly?: boolean } = {},
): SpeltRun[] {
  const last = digitsOnly ? lastRuns.digits : lastRuns.all;
  const known = last.get(text);
  if (known) return known;
  const runs = readRuns(text, language, digitsOnly);
  last.set(text, runs);
  return runs;
}

function readRuns(text: TokenisedText, language: Language, digitsOnly: boolean): SpeltRun[] {
  const words = wordsOfText(text, language);
  const runs: SpeltRun[] = [];
  let parts: Spelt[] = [];
  const close = (): void => {
    if (parts.length > 1 && parts.some(({ signs }) => /\d/.test(signs))) runs.push(runOf(parts));
    parts = [];
  };
  for (let at = 0; at < words.length;) {
    const word = words[at]!;
    if (parts.length > 0 && !/^[-,./()]?$/.test(word.gap)) close();
    if (parts.length > 0 && language.spelt.isSign(word.said)) {
      at++;
      continue;
    }
    const spelt = speltAt(words, at, { language, digitsOnly });
    if (spelt) {
      parts.push({ start: word.start, end: words[spelt.next - 1]!.end, signs: spelt.signs });
      at = spelt.next;
    } else {
      close();
      at++;
    }
  }
  close();
  return runs;
}

function runOf(parts: Spelt[]): SpeltRun {
  const starts = new Map<number, number>();
  const ends = new Map<number, number>();
  let signs = '';
  for (const part of parts) {
    starts.set(signs.length, part.start);
    signs += part.signs;
    ends.set(signs.length, part.end);
  }
  return {
    signs,
    parts,
    original(from, to) {
      const [start, end] = [starts.get(from), ends.get(to)];
      return start === undefined || end === undefined ? null : { start, end };
    },
  };
}
