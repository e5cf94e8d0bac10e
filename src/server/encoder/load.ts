import { createRequire } from 'node:module';
import path from 'node:path';
import type * as Runtime from 'onnxruntime-node';
import { LONGEST_TEXT, type Encoder } from '../../core/encode/encoder.js';
import { PieceSplitter } from '../../core/encode/pieces.js';
import { isWordsText, partsOf, VIEW_LENGTH, type Part } from '../../core/encode/words.js';
import { readEncoderFiles } from './files.js';

/** The library that runs the graph. It is looked for beside the encoder's files, for threads run from elsewhere. */
const runtimeFor = (folder: string): typeof Runtime =>
  createRequire(path.join(folder, 'encoder.json'))('onnxruntime-node') as typeof Runtime;

/** One thread does the work of one text: others have their own, and the sums come out the same everywhere. */
const ONE_THREAD: Runtime.InferenceSession.SessionOptions = {
  intraOpNumThreads: 1,
  interOpNumThreads: 1,
  executionMode: 'sequential',
  graphOptimizationLevel: 'all',
  logSeverityLevel: 3,
};

/** The views of words: the mean of their pieces', of length one; zeros for a word that was not read. */
function viewsOf(pieces: Float32Array, owners: readonly number[], parts: readonly Part[]): Float32Array {
  let words = 0;
  const places = parts.map(({ isWord }) => (isWord ? words++ : -1));
  const views = new Float32Array(words * VIEW_LENGTH);
  owners.forEach((part, row) => {
    const place = part < 0 ? -1 : places[part]!;
    if (place < 0) return;
    for (let at = 0; at < VIEW_LENGTH; at++) views[place * VIEW_LENGTH + at]! += pieces[row * VIEW_LENGTH + at]!;
  });
  for (let word = 0; word < words; word++) {
    const own = views.subarray(word * VIEW_LENGTH, (word + 1) * VIEW_LENGTH);
    const length = Math.hypot(...own);
    if (length > 0) own.forEach((value, at) => (own[at] = value / length));
  }
  return views;
}

/**
 * Loads the sentence encoder from disk. Needs no network.
 * @param folder of `encoderFolder`
 * @throws {EncoderFilesError} if its files are missing or damaged
 */
export async function loadEncoder(folder: string): Promise<Encoder> {
  const files = await readEncoderFiles(folder);
  const splitter = new PieceSplitter(files.pieces);
  const { InferenceSession, Tensor } = runtimeFor(folder);
  const lower = await InferenceSession.create(files.lower, ONE_THREAD);
  const upper = await InferenceSession.create(files.upper, ONE_THREAD);
  const numbered = (pieces: readonly number[]) => ({
    pieces: new Tensor('int64', BigInt64Array.from(pieces, BigInt), [pieces.length]),
  });
  const encodeText = async (text: string): Promise<Float32Array> => {
    const { states } = await lower.run(numbered(splitter.split(text, LONGEST_TEXT)), ['states']);
    const { vector } = await upper.run({ states: states! }, ['vector']);
    return Float32Array.from(vector!.data as Float32Array);
  };
  const lookAtWords = async (text: string): Promise<Float32Array> => {
    const parts = partsOf(text);
    const { pieces, owners } = splitter.splitParts(
      parts.map((part) => part.text),
      LONGEST_TEXT,
    );
    const { views } = await lower.run(numbered(pieces), ['views']);
    return viewsOf(views!.data as Float32Array, owners, parts);
  };
  return {
    async encode(texts) {
      const vectors: Float32Array[] = [];
      // Alone, a text has the same vector whatever it is encoded with.
      for (const text of texts)
        vectors.push(files.known.get(text) ?? (await (isWordsText(text) ? lookAtWords(text) : encodeText(text))));
      return vectors;
    },
  };
}
