import type { TokenisedText } from '../../text/tokens.js';
import { TENS, UNITS } from '../../language/en/numbers.js';
import { wordsOfText, type Word } from './words.js';

/** Names of the letters as they are said, and the words that stand for letters on the telephone. */
const LETTERS: ReadonlyMap<string, string> = new Map(
  `ay:a bee:b cee:c dee:d eff:f gee:g aitch:h haitch:h jay:j kay:k el:l ell:l em:m en:n oh:o pee:p queue:q cue:q ar:r ess:s tee:t
  vee:v ex:x wye:y zed:z zee:z alpha:a alfa:a bravo:b charlie:c delta:d echo:e foxtrot:f golf:g hotel:h india:i juliet:j kilo:k
  lima:l mike:m november:n oscar:o papa:p quebec:q romeo:r sierra:s tango:t uniform:u victor:v whiskey:w xray:x yankee:y zulu:z`
    .split(/\s+/)
    .map((entry) => entry.split(':') as [string, string]),
);
const NOUGHT = /^(?:oh|o|nought|naught|zero|nil)$/;
const TIMES: ReadonlyMap<string, number> = new Map([
  ['double', 2],
  ['treble', 3],
  ['triple', 3],
]);
/** Signs that are said: they part a code and are no letter of it. */
const SIGNS = /^(?:dash|hyphen|slash|stroke|minus)$/;
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
  { digitsOnly }: { digitsOnly: boolean },
): { signs: string; next: number } | null {
  const word = words[at]!;
  const times = TIMES.get(word.said);
  if (times !== undefined) {
    const after = words[at + 1] && speltAt(words, at + 1, { digitsOnly });
    return after && after.signs.length === 1 ? { signs: after.signs.repeat(times), next: after.next } : null;
  }
  if (/^\d+$/.test(word.said)) return { signs: word.said, next: at + 1 };
  const before = words[at - 1];
  const besideDigit = (before !== undefined && (/\d$/.test(before.said) || isDigitWord(before.said))) || digitsOnly;
  if (NOUGHT.test(word.said) && besideDigit) return { signs: '0', next: at + 1 };
  const unit = UNITS.get(word.said);
  if (unit !== undefined) return { signs: String(unit), next: at + 1 };
  const ten = TENS.get(word.said);
  if (ten !== undefined) {
    const one = UNITS.get(words[at + 1]?.said ?? '');
    return one !== undefined && one > 0 && one < 10
      ? { signs: String(ten + one), next: at + 2 }
      : { signs: String(ten), next: at + 1 };
  }
  if (digitsOnly) return null;
  const letter = LETTERS.get(word.said);
  if (letter !== undefined) return { signs: letter, next: at + 1 };
  return /^[a-z]+$/.test(word.said) && word.said.length <= LONGEST_GROUP ? { signs: word.said, next: at + 1 } : null;
}

const isDigitWord = (said: string): boolean => NOUGHT.test(said) || (UNITS.get(said) ?? 99) < 10 || TIMES.has(said);

/**
 * Runs of words that may spell a code out: digits, names of digits and letters, single letters and short groups of them
 * ("jay five four one", "double oh seven", "i n v 3 1 0").
 * @param digitsOnly whether only digits are of interest
 */
export function speltRuns(text: TokenisedText, { digitsOnly = false }: { digitsOnly?: boolean } = {}): SpeltRun[] {
  const words = wordsOfText(text);
  const runs: SpeltRun[] = [];
  let parts: Spelt[] = [];
  const close = (): void => {
    if (parts.length > 1 && parts.some(({ signs }) => /\d/.test(signs))) runs.push(runOf(parts));
    parts = [];
  };
  for (let at = 0; at < words.length;) {
    const word = words[at]!;
    if (parts.length > 0 && !/^[-,./()]?$/.test(word.gap)) close();
    if (parts.length > 0 && SIGNS.test(word.said)) {
      at++;
      continue;
    }
    const spelt = speltAt(words, at, { digitsOnly });
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
