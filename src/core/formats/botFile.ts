import { LineCounter, parseDocument, stringify } from 'yaml';
import { fileOf, readBot, type ReadResult } from '../bot/file.js';
import type { BotDocument } from '../bot/document.js';

export type BotFileFormat = 'json' | 'yaml';

/** Reads the text of a bot file, JSON or YAML. JSON is a subset of YAML, so one reader serves both. */
export function readBotFile(source: string): ReadResult {
  const lines = new LineCounter();
  const parsed = parseDocument(source, { lineCounter: lines, uniqueKeys: true, maxAliasCount: 0 } as object);
  if (parsed.errors.length > 0) {
    return {
      ok: false,
      faults: parsed.errors.map((error) => {
        const { line, col } = lines.linePos(error.pos[0]);
        return {
          path: `line ${line}, column ${col}`,
          message: error.message.split('\n')[0]!.replace(/ at line \d+.*$/, ''),
        };
      }),
    };
  }
  try {
    return readBot(parsed.toJS({ maxAliasCount: 0 }));
  } catch (error) {
    if (!(error instanceof ReferenceError)) throw error;
    return {
      ok: false,
      faults: [{ path: '', message: 'aliases (*name) are not read in a bot file; write the part out' }],
    };
  }
}

/** Writes a bot file that reads back as the same document, but for the ids of its rows. */
export function writeBotFile(document: BotDocument, format: BotFileFormat): string {
  const file = fileOf(document);
  return format === 'json' ? `${JSON.stringify(file, null, 2)}\n` : stringify(file, { lineWidth: 0 });
}
