import type { BotAct } from '../../core/bot/acts/index.js';
import { count } from '../../core/bot/acts/common.js';
import type { BotDocument } from '../../core/bot/document.js';
import { numberOfFaults, type Fault } from '../../core/shape/fault.js';
import type { Walkthrough } from '../../core/converse/walkthrough.js';
import { readBotFile, writeBotFile, type BotFileFormat } from '../../core/formats/botFile.js';
import { readTestFile, type TestLine } from '../../core/formats/testFile.js';
import { readWalkthroughFile } from '../../core/formats/walkthroughFile.js';
import { InputError } from '../errors.js';
import { actOf, isLarge, rowsOf, type LargeBody } from '../requests.js';

/** What a file holds, by its kind; a request that is as large as a file is read as one. */
export interface FileContents {
  bot: BotDocument;
  tests: TestLine[];
  walkthroughs: Walkthrough[];
  act: BotAct;
  testLines: LargeBody['testLines'];
  testLineChange: LargeBody['testLineChange'];
  testLineIds: LargeBody['testLineIds'];
}

export type FileKind = keyof FileContents;
/** What comes as a request. */
export type RequestKind = 'act' | keyof LargeBody;

/** What a thread is asked: to read a file, or to write the file of a bot. */
export type FileTask = { read: FileKind; source: string } | { write: BotDocument; format: BotFileFormat };

/** What comes of it: what the file holds or the file itself, or its first faults with the number of all. */
export type FileDone = { ok: true; is: unknown } | { ok: false; message: string; faults: Fault[]; number: number };

/** Faults that are handed on. */
const MOST_FAULTS = 100;

const faulty = (faults: readonly Fault[]): InputError =>
  new InputError(
    `The file was not brought in: it has ${count(numberOfFaults(faults), 'fault')}. Nothing was changed.`,
    faults,
  );

const READERS: { [Kind in FileKind]: (source: string) => FileContents[Kind] } = {
  bot(source) {
    const result = readBotFile(source);
    if (!result.ok) throw faulty(result.faults);
    return result.document;
  },
  tests(source) {
    const result = readTestFile(source);
    if (!result.ok) throw faulty(result.faults);
    return result.lines;
  },
  walkthroughs(source) {
    const result = readWalkthroughFile(source);
    if (!result.ok) throw faulty(result.faults);
    return result.walkthroughs;
  },
  act: actOf,
  testLines: (source) => rowsOf('testLines', source),
  testLineChange: (source) => rowsOf('testLineChange', source),
  testLineIds: (source) => rowsOf('testLineIds', source),
};

/** Reads a request that holds little; `null` for one that is to be read in a thread. @throws InputError */
export const readSmall = <Kind extends RequestKind>(kind: Kind, source: string): FileContents[Kind] | null =>
  isLarge(source) ? null : (READERS[kind] as (text: string) => FileContents[Kind])(source);

/** Reads and checks a file, or writes one. */
export function doFileTask(task: FileTask): FileDone {
  try {
    return { ok: true, is: 'read' in task ? READERS[task.read](task.source) : writeBotFile(task.write, task.format) };
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    const { message, faults, number } = error;
    return { ok: false, message, faults: faults.slice(0, MOST_FAULTS), number };
  }
}
