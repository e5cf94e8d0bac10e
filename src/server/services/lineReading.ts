import type { TestLine } from '../../core/formats/testFile.js';
import type { LineResult } from '../../core/measure/evaluate.js';
import type { Answering } from '../answering/answering.js';
import type { SharedModel } from '../answering/tasks.js';
import { batchesOf } from '../slices.js';
import type { EncodingService } from './encoding.js';

/** Lines read at a stretch, before other work goes on. */
const STRETCH = 32;

/**
 * Has a model read test lines, in bulk.
 * @param now local ISO time that relative dates are reckoned from where a line names none
 * @param progress is told how many are read, again and again; throws to stop
 */
export async function readInBulk(
  { answering, encoding }: { answering: Answering; encoding: EncodingService },
  { model, lines, now }: { model: SharedModel; lines: readonly TestLine[]; now: string },
  progress: (read: number) => void,
): Promise<LineResult[]> {
  const results: LineResult[] = [];
  for (const some of batchesOf(lines, STRETCH)) {
    const messages = some.map(({ text }) => text);
    const texts = await answering.run('bulk', 'textsOf', { model, messages, as: 'lines' });
    const vectors = await encoding.vectorsOf(texts, { progress: () => progress(results.length) });
    results.push(...(await answering.run('bulk', 'readLines', { model, lines: some, now, vectors })));
    progress(results.length);
  }
  return results;
}
