import { LineCounter, parseDocument, stringify } from 'yaml';
import { fileOf, readBot, type ReadResult } from '../bot/file.js';
import type { BotDocument } from '../bot/document.js';
import { DEEPEST, DEEPEST_YAML, nestingOf, nestingOfYaml, reservedKey } from './nesting.js';

export type BotFileFormat = 'json' | 'yaml';

const fault = (message: string, path = ''): ReadResult => ({ ok: false, faults: [{ path, message }] });

const TOO_DEEP = 'the file is nested deeper than any bot needs, or has hundreds of brackets that nothing closes';

/** Sentences for what the reader of YAML says in its own words. */
const YAML_FAULTS: Record<string, string> = {
  ALIAS_PROPS: 'aliases (*name) are not read in a bot file; write the part out',
  BAD_ALIAS: 'aliases (*name) are not read in a bot file; write the part out',
  BAD_DIRECTIVE: 'a line that begins with % is not read in a bot file',
  BAD_DQ_ESCAPE: 'there is a backslash in double quotes that begins no sign',
  BAD_INDENT: 'the line is not indented as it must be',
  BAD_PROP_ORDER: 'a tag or an anchor stands in the wrong place',
  BAD_SCALAR_START: 'a text that begins like this stands in quotes',
  BLOCK_AS_IMPLICIT_KEY: 'the line is not indented as it must be, or lacks the quotes around a text with a colon',
  BLOCK_IN_FLOW: 'a part by lines stands within brackets; write it with brackets too',
  DUPLICATE_KEY: 'this key stands twice; keys must be unique',
  IMPOSSIBLE: 'the file cannot be read here',
  KEY_OVER_1024_CHARS: 'this key is too long',
  MISSING_CHAR: 'something is missing here: a quote, a bracket, a comma or a colon',
  MULTILINE_IMPLICIT_KEY: 'a key must stand on one line; a text with a colon stands in quotes',
  MULTIPLE_ANCHORS: 'anchors (&name) are not read in a bot file',
  MULTIPLE_DOCS: 'the file holds several documents (---); a bot file holds one',
  MULTIPLE_TAGS: 'tags (!name) are not read in a bot file',
  NON_STRING_KEY: 'a key must be a text',
  TAB_AS_INDENT: 'the line is indented with a tab; use spaces',
  TAG_RESOLVE_FAILED: 'tags (!name) are not read in a bot file',
  UNEXPECTED_TOKEN: 'this is not expected here; see the quotes, brackets and indentation before it',
};

/** A line of YAML that is longer, in UTF-16 code units, is not parsed: the time for one text grows with its square. */
const LONGEST_LINE = 500_000;

/** The number of the first line that is too long to be parsed; 0 where there is none. */
function lineTooLong(source: string): number {
  let number = 1;
  for (let start = 0; start <= source.length; number++) {
    const next = source.indexOf('\n', start);
    const end = next === -1 ? source.length : next;
    if (end - start > LONGEST_LINE) return number;
    start = end + 1;
  }
  return 0;
}

function readYaml(source: string): ReadResult {
  if (nestingOfYaml(source) > DEEPEST_YAML) return fault(TOO_DEEP);
  const tooLong = lineTooLong(source);
  if (tooLong > 0) return fault('the line is longer than anything that a bot holds', `line ${tooLong}`);
  const lines = new LineCounter();
  const parsed = parseDocument(source, {
    lineCounter: lines,
    uniqueKeys: true,
    maxAliasCount: 0,
    logLevel: 'error',
  } as object);
  const wrong = [...parsed.errors, ...parsed.warnings];
  if (wrong.length > 0) {
    return {
      ok: false,
      faults: wrong.map(({ code, pos }) => {
        const { line, col } = lines.linePos(pos[0]);
        return { path: `line ${line}, column ${col}`, message: YAML_FAULTS[code] ?? 'the file cannot be read here' };
      }),
    };
  }
  try {
    return readValue(parsed.toJS({ maxAliasCount: 0 }));
  } catch (error) {
    if (!(error instanceof ReferenceError)) throw error;
    return fault(YAML_FAULTS['BAD_ALIAS']!);
  }
}

function readValue(value: unknown): ReadResult {
  const reserved = reservedKey(value);
  return reserved === null ? readBot(value) : fault(`the name “${reserved}” cannot be used`);
}

/** Reads the text of a bot file, JSON or YAML. */
export function readBotFile(source: string): ReadResult {
  const text = source.replace(/^\uFEFF/, '');
  // JSON is a part of YAML, but its own reader is hundreds of times faster; YAML may begin with a bracket too.
  if (/^\s*\{/.test(text) && nestingOf(text) <= DEEPEST) {
    try {
      return readValue(JSON.parse(text));
    } catch (error) {
      if (!(error instanceof SyntaxError)) throw error;
    }
  }
  return readYaml(text);
}

/** Writes a bot file that reads back as the same document, but for the ids of its rows. */
export function writeBotFile(document: BotDocument, format: BotFileFormat): string {
  const file = fileOf(document);
  return format === 'json' ? `${JSON.stringify(file, null, 2)}\n` : stringify(file, { lineWidth: 0 });
}
