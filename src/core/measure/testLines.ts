import type { BotDocument } from '../bot/document.js';
import { listLines } from '../bot/pasted.js';
import { escapeMarking, MarkingError, readMarking, writeMarking } from '../bot/marking.js';
import type { ExpectedSlot, TestLine } from '../formats/testFile.js';
import type { Recognition } from '../recognise/recognition.js';
import { showValue } from '../recognise/value.js';
import { foldMessage } from './evaluate.js';
import { seeded } from './significance.js';

/** What is wrong with a test line: its label is missing, it was taught, it stands twice, or a like one says otherwise. */
export type LineFlag = 'no label' | 'taught' | 'twice' | 'disagrees';

/**
 * Tells what is wrong with each line; the gravest alone.
 * @param taught of `taughtMessages`
 */
export function flagLines(
  lines: readonly Pick<TestLine, 'text' | 'intent'>[],
  taught: ReadonlySet<string>,
): (LineFlag | null)[] {
  const folded = lines.map(({ text }) => foldMessage(text));
  const labels = new Map<string, Set<string | null>>();
  lines.forEach(({ intent }, at) => {
    if (intent === undefined) return;
    labels.set(folded[at]!, (labels.get(folded[at]!) ?? new Set()).add(intent));
  });
  const seen = new Set<string>();
  return lines.map(({ intent }, at) => {
    const own = folded[at]!;
    const again = seen.has(own);
    seen.add(own);
    if (taught.has(own)) return 'taught';
    if ((labels.get(own)?.size ?? 0) > 1) return 'disagrees';
    if (again) return 'twice';
    return intent === undefined ? 'no label' : null;
  });
}

/** What a line would be labelled by how the bot reads it; `null`: out of scope. */
export const proposedLabel = ({ decision, ranking }: Pick<Recognition, 'decision' | 'ranking'>): string | null =>
  decision === 'none' ? null : (ranking[0]?.intent ?? null);

/** What stands for out of scope in a pasted line. */
const OUTSIDE = /^(?:-|–|none|null|out[ _-]of[ _-]scope)$/i;

/** Lines that were pasted or typed, and those that cannot be read, with the reason. */
export interface PastedTests {
  good: TestLine[];
  bad: { line: string; reason: string }[];
}

/** A label as a pasted line has it; `undefined` where it is none. */
const labelOf = (written: string, intents: ReadonlyMap<string, string>): string | null | undefined =>
  OUTSIDE.test(written) ? null : intents.get(written.toLowerCase());

/**
 * Reads lines as they come from a table or from a list: the message, and after a tab its intent, or "-" for out of scope.
 * A message without one has no label yet. Slots may be marked in it.
 */
export function readPastedTests(text: string, intents: readonly string[]): PastedTests {
  const known = new Map(intents.map((name) => [name.toLowerCase(), name]));
  const result: PastedTests = { good: [], bad: [] };
  const rows = text.includes('\t') ? text.split(/\r?\n/).filter((line) => line.trim() !== '') : listLines(text);
  for (const row of rows) {
    const [message = '', written = ''] = row.split('\t').map((cell) => cell.trim());
    if (message === '') {
      result.bad.push({ line: row, reason: 'the message is missing' });
      continue;
    }
    const label = written === '' ? undefined : labelOf(written, known);
    if (written !== '' && label === undefined) {
      result.bad.push({ line: row, reason: `there is no intent "${written}"` });
      continue;
    }
    result.good.push({ ...markedLine(message), ...(label === undefined ? {} : { intent: label }) });
  }
  return result;
}

/** A message with what is marked in it; one whose marks cannot be read is plain words. */
function markedLine(message: string): TestLine {
  try {
    const { text, marks } = readMarking(message);
    return marks.length > 0 ? { text, slots: marks } : { text };
  } catch (error) {
    if (!(error instanceof MarkingError)) throw error;
    return { text: readMarking(escapeMarking(message)).text };
  }
}

/** A line as it is written anew, its slots in tags. */
export const writtenLine = ({ text, slots = [] }: Pick<TestLine, 'text' | 'slots'>): string =>
  writeMarking({ text, marks: slots });

/**
 * A line that was written anew. Slots that are the same words as before keep the value that was told of them, as it is
 * shown; a line that listed its slots goes on to do so, even where none is left.
 * @throws MarkingError
 */
export function rewrittenLine(before: TestLine, written: string): Pick<TestLine, 'text' | 'slots'> {
  const { text, marks } = readMarking(written.trim());
  if (marks.length === 0 && !before.slots) return { text };
  const slots = marks.map((mark): ExpectedSlot => {
    const words = text.slice(mark.start, mark.end);
    const same = before.slots?.find(
      ({ slot, start, end }) => slot === mark.slot && before.text.slice(start, end) === words,
    );
    return same?.value === undefined ? mark : { ...mark, value: showValue(same.value) };
  });
  return { text, slots };
}

/** The value that one slot of a line is to have, in words; `null`: none is told. */
export interface ToldValue {
  /** Its place among the slots of the line. */
  place: number;
  value: string | null;
}

/** Slots, of which one is told another value. */
export const withValue = (slots: readonly ExpectedSlot[], { place, value }: ToldValue): ExpectedSlot[] =>
  slots.map((slot, at) => {
    if (at !== place) return slot;
    const { value: _, ...bare } = slot;
    return value === null ? bare : { ...bare, value };
  });

/** Intents of fewer utterances give none away. */
const FEWEST_LEFT = 4;

/** Utterances that are no longer taught but tested with. */
export interface SetAside {
  lines: TestLine[];
  rows: { id: string; was: string }[];
}

/**
 * Chooses a share of the utterances of each intent to test with instead of teaching them.
 * @param share 0..1; every intent keeps some
 */
export function setAside(document: BotDocument, share: number, seed: number): SetAside {
  const random = seeded(seed);
  const chosen: SetAside = { lines: [], rows: [] };
  for (const { name, utterances } of document.intents) {
    const most = Math.max(0, utterances.length - FEWEST_LEFT);
    const count = Math.min(most, Math.round(utterances.length * share));
    const drawn = utterances
      .map((utterance, place) => ({ utterance, place, by: random() }))
      .sort((a, b) => a.by - b.by)
      .slice(0, count)
      .sort((a, b) => a.place - b.place);
    for (const { utterance } of drawn) {
      const { id, text, marks } = utterance;
      chosen.rows.push({ id, was: writeMarking(utterance) });
      chosen.lines.push({ text, intent: name, ...(marks.length > 0 ? { slots: marks } : {}) });
    }
  }
  return chosen;
}
