/** A marked part of a text. Offsets are UTF-16 code units of the plain text. */
export interface Mark {
  slot: string;
  start: number;
  end: number;
}

/** A text with the parts of it that carry values. */
export interface MarkedText {
  text: string;
  marks: Mark[];
}

/** A fault in inline marking, as a sentence without its place. */
export class MarkingError extends Error {}

const TAG = /<(\/?)([\p{L}_][\p{L}\p{N}_-]*)>|&(amp|lt|gt);|[<&]/gu;
const ENTITIES: Record<string, string> = { amp: '&', lt: '<', gt: '>' };

/**
 * Reads inline marking: `two <plant>lavender</plant>`; `&lt;` and `&amp;` stand for `<` and `&`.
 * A `<` or `&` that begins no tag is taken as itself.
 * @throws MarkingError on tags that are nested, unclosed, unopened or empty
 */
export function readMarking(source: string): MarkedText {
  let text = '';
  let open: { slot: string; start: number } | null = null;
  const marks: Mark[] = [];
  let from = 0;
  for (const match of source.matchAll(TAG)) {
    text += source.slice(from, match.index);
    from = match.index + match[0].length;
    const [whole, slash, name, entity] = match;
    if (entity !== undefined) {
      text += ENTITIES[entity] ?? whole;
    } else if (name === undefined) {
      text += whole;
    } else if (slash === '') {
      if (open) throw new MarkingError(`<${name}> opens inside <${open.slot}>; close <${open.slot}> first`);
      open = { slot: name, start: text.length };
    } else {
      if (open?.slot !== name) throw new MarkingError(`</${name}> closes a mark that was not opened`);
      if (text.length === open.start) throw new MarkingError(`<${name}> marks no words`);
      marks.push({ slot: name, start: open.start, end: text.length });
      open = null;
    }
  }
  if (open) throw new MarkingError(`<${open.slot}> is not closed; add </${open.slot}>`);
  return { text: text + source.slice(from), marks };
}

/** Plain text as inline marking writes it. */
export function escapeMarking(text: string): string {
  return text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');
}

/** Writes a marked text with inline tags; the reverse of {@link readMarking}. */
export function writeMarking({ text, marks }: MarkedText): string {
  let written = '';
  let from = 0;
  for (const mark of [...marks].sort((a, b) => a.start - b.start)) {
    written += `${escapeMarking(text.slice(from, mark.start))}<${mark.slot}>${escapeMarking(text.slice(mark.start, mark.end))}</${mark.slot}>`;
    from = mark.end;
  }
  return written + escapeMarking(text.slice(from));
}

/** Adds a mark; marks that it overlaps are taken away. */
export function withMark(marked: MarkedText, mark: Mark): MarkedText {
  const kept = marked.marks.filter((other) => other.end <= mark.start || other.start >= mark.end);
  return { text: marked.text, marks: [...kept, mark].sort((a, b) => a.start - b.start) };
}

/** Renames or, with `null`, takes away all marks of a slot. A text without such marks comes back as the same object. */
export function renameMarks<T extends MarkedText>(marked: T, from: string, to: string | null): T {
  if (!marked.marks.some((mark) => mark.slot === from)) return marked;
  const marks = marked.marks.flatMap((mark) =>
    mark.slot !== from ? [mark] : to === null ? [] : [{ ...mark, slot: to }],
  );
  return { ...marked, marks };
}
