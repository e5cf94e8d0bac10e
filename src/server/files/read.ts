import type { BotDocument } from '../../core/bot/document.js';
import type { Fault } from '../../core/shape/fault.js';
import type { Walkthrough } from '../../core/converse/walkthrough.js';
import { readBotFile } from '../../core/formats/botFile.js';
import { readTestFile, type TestLine } from '../../core/formats/testFile.js';
import { readWalkthroughFile } from '../../core/formats/walkthroughFile.js';

/** What a file holds, by its kind. */
export interface FileContents {
  bot: BotDocument;
  tests: TestLine[];
  walkthroughs: Walkthrough[];
}

export type FileKind = keyof FileContents;

/** What reading a file gives: what it holds, or its first faults with the number of all. */
export type FileRead<Kind extends FileKind> =
  { ok: true; contents: FileContents[Kind] } | { ok: false; faults: Fault[]; number: number };

/** Faults that are handed on. */
const MOST_FAULTS = 100;

function contentsOf(kind: FileKind, source: string): { ok: true; contents: unknown } | { ok: false; faults: Fault[] } {
  if (kind === 'bot') {
    const read = readBotFile(source);
    return read.ok ? { ok: true, contents: read.document } : read;
  }
  if (kind === 'tests') {
    const read = readTestFile(source);
    return read.ok ? { ok: true, contents: read.lines } : read;
  }
  const read = readWalkthroughFile(source);
  return read.ok ? { ok: true, contents: read.walkthroughs } : read;
}

/** Reads and checks a file. */
export function readFileOf<Kind extends FileKind>({ kind, source }: { kind: Kind; source: string }): FileRead<Kind> {
  const read = contentsOf(kind, source);
  if (read.ok) return read as FileRead<Kind>;
  return { ok: false, faults: read.faults.slice(0, MOST_FAULTS), number: read.faults.length };
}
