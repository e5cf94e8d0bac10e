import { CsvError, parse } from 'csv-parse/sync';
import { MarkingError, readMarking } from '../bot/marking.js';
import type { Fault } from '../shape/fault.js';
import type { SlotValue } from '../recognise/value.js';
import { isMoment } from './moment.js';
import { TAGS, type TagName } from './tags.js';
import { DEEPEST, nestingOf, reservedKey } from './nesting.js';

/** A slot that a test line expects. Offsets are UTF-16 code units of the text. */
export interface ExpectedSlot {
  slot: string;
  start: number;
  end: number;
  value?: SlotValue | undefined;
}

/** A message with what it ought to be read as. */
export interface TestLine {
  text: string;
  /** `null`: out of scope; `undefined`: not said. */
  intent?: string | null;
  /** Local ISO time that relative dates are reckoned from. */
  now?: string;
  slots?: ExpectedSlot[];
  /** How it is written (plain, typo, spoken…), for breaking figures down. */
  style?: string;
  /** Where it comes from, for the same. */
  tags?: Partial<Record<TagName, string>>;
}

/** The longest message, in UTF-16 code units, and the most of them in a file. */
const LONGEST_LINE = 20_000;
const MOST_LINES = 100_000;

export type TestFileResult = { ok: true; lines: TestLine[] } | { ok: false; faults: Fault[] };

function readSlots(value: unknown, text: string, path: string, faults: Fault[]): ExpectedSlot[] {
  if (!Array.isArray(value)) {
    faults.push({ path: `${path}, slots`, message: 'must be a list' });
    return [];
  }
  return value.flatMap((item: unknown, index) => {
    const at = `${path}, slots[${index}]`;
    const { slot, start, end, value: expected } = (item ?? {}) as Record<string, unknown>;
    if (typeof slot !== 'string' || typeof start !== 'number' || typeof end !== 'number') {
      faults.push({ path: at, message: 'needs "slot", "start" and "end"' });
      return [];
    }
    if (start < 0 || end <= start || end > text.length) {
      faults.push({
        path: at,
        message: `start ${start} and end ${end} do not lie within the text of ${text.length} characters`,
      });
      return [];
    }
    return [{ slot, start, end, ...(expected === undefined ? {} : { value: expected as SlotValue }) }];
  });
}

function readRow(row: Record<string, unknown>, path: string, faults: Fault[]): TestLine | null {
  if (typeof row['text'] !== 'string' || row['text'].trim() === '') {
    faults.push({ path, message: '"text" is missing or empty' });
    return null;
  }
  if (row['text'].length > LONGEST_LINE) {
    faults.push({
      path,
      message: `"text" has more than ${LONGEST_LINE.toLocaleString('en-GB')} characters; a message of that length is not read`,
    });
    return null;
  }
  const line: TestLine = { text: row['text'] };
  const { intent, now, slots, style } = row;
  if (intent === null || typeof intent === 'string') line.intent = intent === '' ? null : intent;
  else if (intent !== undefined) faults.push({ path, message: '"intent" must be a name, or null for out of scope' });
  if (now !== undefined && now !== null && now !== '') {
    if (typeof now === 'string' && isMoment(now)) line.now = now;
    else faults.push({ path, message: '"now" must be a local time such as 2026-03-04T09:30' });
  }
  if (typeof style === 'string' && style !== '') line.style = style;
  const tags = TAGS.flatMap((tag) => {
    const value = row[tag];
    return typeof value === 'string' && value !== '' ? [[tag, value] as const] : [];
  });
  if (tags.length > 0) line.tags = Object.fromEntries(tags);
  if (slots !== undefined && slots !== null) line.slots = readSlots(slots, line.text, path, faults);
  return line;
}

/** In tables the text may carry inline tags in place of a slots column. */
function readTableRow(row: Record<string, unknown>, path: string, faults: Fault[]): TestLine | null {
  const line = readRow(row, path, faults);
  if (!line) return null;
  try {
    const { text, marks } = readMarking(line.text);
    return marks.length > 0 ? { ...line, text, slots: marks } : { ...line, text };
  } catch (error) {
    if (!(error instanceof MarkingError)) throw error;
    faults.push({ path, message: error.message });
    return null;
  }
}

function readJsonLines(source: string, faults: Fault[]): TestLine[] {
  return source.split(/\r?\n/).flatMap((row, index) => {
    if (row.trim() === '') return [];
    const path = `line ${index + 1}`;
    if (nestingOf(row) > DEEPEST) {
      faults.push({ path, message: `is nested more than ${DEEPEST} deep` });
      return [];
    }
    try {
      const value: unknown = JSON.parse(row);
      if (typeof value !== 'object' || value === null || Array.isArray(value)) {
        faults.push({ path, message: 'must be an object such as {"text": "…", "intent": "…"}' });
        return [];
      }
      const reserved = reservedKey(value);
      if (reserved !== null) {
        faults.push({ path, message: `the name “${reserved}” cannot be used` });
        return [];
      }
      return readRow(value as Record<string, unknown>, path, faults) ?? [];
    } catch (error) {
      if (!(error instanceof SyntaxError)) throw error;
      faults.push({ path, message: 'is not JSON' });
      return [];
    }
  });
}

/** Sentences for what the reader of tables says in its own words. */
const CSV_FAULTS: Record<string, string> = {
  CSV_INVALID_CLOSING_QUOTE: 'something stands between a closing quote and the next column',
  CSV_NON_TRIMABLE_CHAR_AFTER_CLOSING_QUOTE: 'something stands between a closing quote and the next column',
  CSV_QUOTE_NOT_CLOSED: 'a quote that opens here is not closed',
  CSV_RECORD_INCONSISTENT_FIELDS_LENGTH: 'the row has not as many columns as the header',
  CSV_RECORD_INCONSISTENT_COLUMNS: 'the row has not as many columns as the header',
  CSV_INVALID_COLUMN_DEFINITION: 'the header cannot be read',
  CSV_MAX_RECORD_SIZE: 'the row is too long',
};

/** A row with the line it ends on. */
interface TableRow {
  record: Record<string, unknown>;
  info: { lines: number };
}

function readTable(source: string, delimiter: string, faults: Fault[]): TestLine[] {
  let rows: TableRow[];
  try {
    rows = parse<TableRow>(source, {
      columns: true,
      delimiter,
      bom: true,
      trim: true,
      skip_empty_lines: true,
      info: true,
      relax_quotes: true,
    });
  } catch (error) {
    if (!(error instanceof CsvError)) throw error;
    const { lines, code } = error as CsvError & { lines?: number };
    const message = CSV_FAULTS[code] ?? 'cannot be read as a table';
    faults.push({ path: lines === undefined ? '' : `line ${lines}`, message });
    return [];
  }
  if (rows[0] && !('text' in rows[0].record)) {
    const columns = Object.keys(rows[0].record).join(', ');
    faults.push({ path: 'line 1', message: `there is no column "text"; the columns are: ${columns}` });
    return [];
  }
  return rows.flatMap(({ record, info }) => readTableRow(record, `line ${info.lines}`, faults) ?? []);
}

/**
 * Reads test lines or messages from JSONL (one object a line), CSV or TSV (with a header).
 * Every fault is listed with its line; a file with one is refused whole.
 */
export function readTestFile(source: string): TestFileResult {
  const faults: Fault[] = [];
  const clean = source.replace(/^\uFEFF/, '');
  const firstLine = clean.trimStart().split(/\r?\n/, 1)[0] ?? '';
  if (firstLine === '') return { ok: false, faults: [{ path: '', message: 'the file is empty' }] };
  if (clean.split('\n', MOST_LINES + 2).length > MOST_LINES + 1) {
    const message = `the file has more than ${MOST_LINES.toLocaleString('en-GB')} lines; divide it and bring in the parts`;
    return { ok: false, faults: [{ path: '', message }] };
  }
  const lines = firstLine.startsWith('{')
    ? readJsonLines(clean, faults)
    : readTable(clean, firstLine.includes('\t') ? '\t' : ',', faults);
  if (faults.length === 0 && lines.length === 0) faults.push({ path: '', message: 'the file holds no lines' });
  return faults.length > 0 ? { ok: false, faults } : { ok: true, lines };
}
