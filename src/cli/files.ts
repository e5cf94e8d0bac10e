import { readFileSync } from 'node:fs';
import type { BotDocument } from '../core/bot/document.js';
import type { Fault } from '../core/shape/fault.js';
import type { Walkthrough } from '../core/converse/walkthrough.js';
import { readBotFile } from '../core/formats/botFile.js';
import { readTestFile, type TestLine } from '../core/formats/testFile.js';
import { readWalkthroughFile } from '../core/formats/walkthroughFile.js';

/** Bad use or a bad file, as sentences; the command exits with 2. */
export class UsageError extends Error {}

function list(file: string, faults: readonly Fault[]): UsageError {
  const lines = faults.map(({ path, message }) => `  ${path === '' ? '' : `${path}: `}${message}`);
  return new UsageError(`${file} cannot be read:\n${lines.join('\n')}`);
}

function readText(file: string): string {
  try {
    return readFileSync(file, 'utf8');
  } catch (error) {
    const reason =
      (error as NodeJS.ErrnoException).code === 'ENOENT' ? 'there is no such file' : (error as Error).message;
    throw new UsageError(`${file}: ${reason}.`, { cause: error });
  }
}

export function loadBotFile(file: string): BotDocument {
  const result = readBotFile(readText(file));
  if (!result.ok) throw list(file, result.faults);
  return result.document;
}

export function loadTestFile(file: string): TestLine[] {
  const result = readTestFile(readText(file));
  if (!result.ok) throw list(file, result.faults);
  return result.lines;
}

export function loadWalkthroughFile(file: string): Walkthrough[] {
  const result = readWalkthroughFile(readText(file));
  if (!result.ok) throw list(file, result.faults);
  return result.walkthroughs;
}
