import type { Vectors } from '../../core/encode/encoder.js';
import type { TestLine } from '../../core/formats/testFile.js';
import type { LineResult } from '../../core/measure/evaluate.js';
import type { Answering } from '../answering/answering.js';
import type { SharedModel } from '../answering/tasks.js';
import { batchesOf } from '../slices.js';
import type { EncodingService } from './encoding.js';

/** Lines read at a stretch, before other work goes on. */
const STRETCH = 32;

/** Lines that are ready to be read. */
interface Stretch {
  lines: TestLine[];
  vectors: Vectors;
}

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
  const prepare = async (some: TestLine[] | undefined): Promise<Stretch | null> => {
    if (!some) return null;
    const messages = some.map(({ text }) => text);
    const texts = await answering.run('bulk', 'textsOf', { model, messages, as: 'lines' });
    return { lines: some, vectors: await encoding.vectorsOf(texts, { progress: () => progress(results.length) }) };
  };
  const stretches = batchesOf(lines, STRETCH);
  const next = () => prepare(stretches.next().value as TestLine[] | undefined);
  for (let stretch = await next(); stretch;) {
    // The vectors of the lines after these are looked up while these are read.
    const after = next();
    const [following, read] = await Promise.all([
      after,
      answering.run('bulk', 'readLines', { model, now, ...stretch }),
    ]);
    results.push(...read);
    progress(results.length);
    stretch = following;
  }
  return results;
}
