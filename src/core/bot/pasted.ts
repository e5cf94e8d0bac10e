import { closest } from '../text/distance.js';
import { escapeMarking, MarkingError, readMarking } from './marking.js';

/** Lines of a pasted text: those that can be kept, and those that cannot, with the reason. */
export interface PastedLines {
  good: string[];
  bad: { line: string; reason: string }[];
}

/** What stands before the lines of a list: "- ", "• ", "2. ", "3) ". */
const BULLET = /^\s*(?:[-*•–—·▪◦]|\(?\d{1,3}[.)])\s+/u;
const TAG = /<\/?([\p{L}_][\p{L}\p{N}_-]*)>/gu;

const SHORTEST_SLIP = 3;

/** The known name that a tag is a slip of, if it is one: `<b>` is none. */
const nearName = (name: string, known: readonly string[]): string | undefined =>
  name.length < SHORTEST_SLIP ? undefined : closest(name, known);

/** The lines of a text without what marks them as a list; empty ones are left out. */
export function listLines(text: string): string[] {
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== '');
  // One number alone may be a message of its own: "2. floor please" is no list of one.
  const isList = lines.length > 1 || /^\s*[-*•–—·▪◦]\s/u.test(lines[0] ?? '');
  return lines.map((line) => (isList ? line.replace(BULLET, '') : line).trim()).filter((line) => line !== '');
}

/**
 * Reads lines that were pasted or typed as utterances. Tags that name nothing of the bot are plain words.
 * @param known slots and entities that tags may name
 */
export function readPasted(text: string, known: readonly string[]): PastedLines {
  const names = new Set(known);
  const result: PastedLines = { good: [], bad: [] };
  for (const line of listLines(text)) {
    const slip = [...line.matchAll(TAG)]
      .map(([, name]) => name!)
      .find((name) => !names.has(name) && nearName(name, known));
    if (slip !== undefined) {
      const reason = `there is no slot or entity "${slip}"; did you mean "${nearName(slip, known)}"?`;
      result.bad.push({ line, reason });
      continue;
    }
    const source = line.replace(TAG, (tag, name: string) => (names.has(name) ? tag : escapeMarking(tag)));
    try {
      readMarking(source);
      result.good.push(source);
    } catch (error) {
      if (!(error instanceof MarkingError)) throw error;
      result.bad.push({ line, reason: error.message });
    }
  }
  return result;
}

/** A part of a line of values: in quotes where it holds a comma. */
const PART = /\s*"((?:[^"]|"")*)"\s*(?=[,\t]|$)|[^,\t]+/gu;

/** The parts of a line, parted by commas; a part with a comma of its own stands in quotes. */
export function splitParts(line: string): string[] {
  return [...line.matchAll(PART)]
    .map(([whole, quoted]) => (quoted === undefined ? whole : quoted.replaceAll('""', '"')).trim())
    .filter((part) => part !== '');
}

/** Parts as one line; the reverse of {@link splitParts}. */
export const joinParts = (parts: readonly string[]): string =>
  parts.map((part) => (/[,"\t]/.test(part) ? `"${part.replaceAll('"', '""')}"` : part)).join(', ');
