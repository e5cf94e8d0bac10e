import { beforeAll, describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import type { BotDocument } from '../bot/document.js';
import {
  documentOf,
  fingerprintOf,
  heldOutOf,
  lookAtModelFile,
  ModelFileError,
  readModelFile,
  writeModelFile,
} from './modelFile.js';
import { MODEL_VERSION } from './intentModel.js';
import type { RecogniserModel } from './model.js';
import { openRecogniser } from './open.js';
import { prepareTraining } from './train.js';

const NOW = '2026-03-04T09:30';
const shared = (size: number) => new Uint8Array(new SharedArrayBuffer(size));

describe('a model file', () => {
  let document: BotDocument;
  let model: RecogniserModel;
  let bytes: Uint8Array;

  beforeAll(() => {
    document = teaShop();
    model = prepareTraining(document).train(new Map());
    bytes = writeModelFile(document, model);
  });

  it('gives back the bot and all that was learned, to the last digit', () => {
    const opened = readModelFile(lookAtModelFile(bytes));
    expect(opened).toEqual({ document, model });
    const text = 'I want three packets of mint tea';
    const first = openRecogniser(document, model).recognise(text, new Map(), NOW);
    expect(openRecogniser(opened.document, opened.model).recognise(text, new Map(), NOW)).toEqual(first);
  });

  it('is read where it lies in shared memory, its numbers not copied', () => {
    const whole = writeModelFile(document, model, shared);
    expect(whole.buffer).toBeInstanceOf(SharedArrayBuffer);
    const opened = readModelFile(lookAtModelFile(whole));
    expect(opened.model.termWeights.buffer).toBe(whole.buffer);
    expect(opened.model).toEqual(model);
  });

  it('tells what screens show without being opened', () => {
    const file = lookAtModelFile(bytes);
    expect(file.header.facts).toEqual({ leftOut: 0, unread: [] });
    expect(file.header.encoder).toBeNull();
    expect(heldOutOf(file)).toEqual(model.heldOut);
    expect(documentOf(file)).toEqual(document);
  });

  it('is the same for the same bot, and another for another', () => {
    expect(writeModelFile(document, model)).toEqual(bytes);
    const other = lookAtModelFile(writeModelFile({ ...document, name: 'Another' }, model));
    expect(other.header.fingerprint).not.toBe(lookAtModelFile(bytes).header.fingerprint);
  });

  it.each<[string, (bytes: Uint8Array) => Uint8Array]>([
    ['is empty', () => new Uint8Array()],
    ['is something else', (whole) => whole.map((byte, at) => (at === 0 ? byte + 1 : byte))],
    ['is cut short', (whole) => whole.slice(0, whole.length - 20)],
    ['is cut short in its header', (whole) => whole.slice(0, 40)],
    ['has a digit of another', (whole) => whole.map((byte, at) => (at === whole.length - 40 ? byte ^ 1 : byte))],
    [
      'is of another version',
      (whole) => {
        // As long as the true one, so that nothing else of the file is another.
        const at = Buffer.from(whole).indexOf(`"recogniser":${MODEL_VERSION}`) + '"recogniser":'.length;
        return whole.map((byte, place) => (place === at ? '0'.charCodeAt(0) : byte));
      },
    ],
  ])('that %s is refused', (_, change) => {
    expect(() => readModelFile(lookAtModelFile(change(bytes)))).toThrow(ModelFileError);
  });

  it('has a sum that tells any byte from another', () => {
    const sums = Array.from({ length: 256 }, (_, byte) => fingerprintOf(new Uint8Array([1, byte, 3])));
    expect(new Set(sums).size).toBe(256);
    expect(fingerprintOf(new Uint8Array([1, 2]))).not.toBe(fingerprintOf(new Uint8Array([2, 1])));
  });
});
