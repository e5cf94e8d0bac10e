import { storedDocument, upgradeDocument } from '../bot/upgrade.js';
import type { BotDocument } from '../bot/document.js';
import { ENCODER_VERSION } from '../encode/encoder.js';
import { MODEL_VERSION, type HeldOutPrediction } from './intentModel.js';
import type { RecogniserModel, UnreadUtterance } from './model.js';

/** What reads, beside the bot as it stands: with the same weights the figures are the same, to the digit. */
export const READER = `model ${MODEL_VERSION}, ${ENCODER_VERSION}`;

/**
 * A model as a file: the bot it was taught with, and all that was learned. Little-endian:
 *
 *     8 bytes   "ReedGate"
 *     4 bytes   length of the header, in bytes
 *     header    JSON in UTF-8: {@link ModelHeader}
 *     sections  each at a multiple of 8: JSON in UTF-8, or the numbers of an array
 *
 * The numbers are read where they lie, so that threads may read one file in shared memory.
 */
export interface ModelHeader {
  format: typeof FORMAT;
  /** Version of the recogniser whose model it is. */
  recogniser: number;
  /** The encoder that took part; `null` where n-grams alone carry the model. */
  encoder: string | null;
  /** Of the bot it was taught with. */
  fingerprint: string;
  /** Of all sections. */
  checksum: string;
  sections: Section[];
  facts: ModelFacts;
}

/** What screens are told of a model without opening it. */
export interface ModelFacts {
  /** Utterances that took no part in the training because the bot has too many. */
  leftOut: number;
  unread: UnreadUtterance[];
}

interface Section {
  name: string;
  type: keyof typeof ARRAYS | 'json';
  /** From the end of the header, in bytes. */
  offset: number;
  /** In bytes. */
  length: number;
}

/** A model file in memory, not opened. */
export interface ModelFile {
  bytes: Uint8Array;
  header: ModelHeader;
  /** Where the sections begin. */
  start: number;
}

const FORMAT = 1;
const MAGIC = 'ReedGate';
const ALIGNED = 8;
const ARRAYS = { Float32Array, Float64Array, Int32Array, Uint32Array, Uint16Array, Uint8Array } as const;

type NumberArray = InstanceType<(typeof ARRAYS)[keyof typeof ARRAYS]>;

const aligned = (size: number): number => Math.ceil(size / ALIGNED) * ALIGNED;
const encoder = new TextEncoder();
const decoder = new TextDecoder();

/** A 64-bit sum of bytes as 16 hexadecimal digits (FNV-1a by Fowler, Noll and Vo, over two interleaved halves). */
export function fingerprintOf(bytes: Uint8Array): string {
  let [even, odd] = [0x811c9dc5, 0x01000193];
  for (let at = 0; at + 1 < bytes.length; at += 2) {
    even = Math.imul(even ^ bytes[at]!, 0x01000193);
    odd = Math.imul(odd ^ bytes[at + 1]!, 0x01000193);
  }
  if (bytes.length % 2 === 1) even = Math.imul(even ^ bytes.at(-1)!, 0x01000193);
  return [even, odd].map((half) => (half >>> 0).toString(16).padStart(8, '0')).join('');
}

const fingerprintOfDocument = (document: BotDocument): string =>
  fingerprintOf(encoder.encode(JSON.stringify(document)));

/** Stands in plain data for an array that is a section of its own. */
interface ArrayPlace {
  section: string;
}

const isArrayPlace = (value: object): value is ArrayPlace =>
  Object.keys(value).length === 1 && typeof (value as Partial<ArrayPlace>).section === 'string';

const isNumbers = (value: unknown): value is NumberArray =>
  ArrayBuffer.isView(value) && Object.hasOwn(ARRAYS, value.constructor.name);

/** Takes the arrays out of plain data. @returns the data as JSON, with the places of the arrays */
function withoutArrays(value: unknown): { json: string; arrays: NumberArray[] } {
  const arrays: NumberArray[] = [];
  const json = JSON.stringify(value, (_, part: unknown) => {
    if (!isNumbers(part)) return part;
    arrays.push(part);
    return { section: `array ${arrays.length - 1}` } satisfies ArrayPlace;
  });
  return { json, arrays };
}

/** Puts the arrays back into plain data, which is changed. */
function withArrays(value: unknown, arrayOf: (section: string) => NumberArray): unknown {
  if (typeof value !== 'object' || value === null) return value;
  if (!Array.isArray(value) && isArrayPlace(value)) return arrayOf(value.section);
  const parts = value as Record<string, unknown>;
  for (const key of Object.keys(parts)) {
    const part = parts[key];
    if (typeof part === 'object' && part !== null) parts[key] = withArrays(part, arrayOf);
  }
  return value;
}

/** Predictions by columns: so many of them are told in no other way quickly. */
interface HeldOutColumns {
  labels: string[];
  utterances: string[];
  texts: string[];
  /** Places in `labels`; -1 for none. */
  intents: Int32Array;
  predicted: Int32Array;
  confidences: Float64Array;
  ownConfidences: Float64Array;
}

function columnsOf(heldOut: readonly HeldOutPrediction[]): HeldOutColumns {
  const labels = [
    ...new Set(heldOut.flatMap(({ intent, predicted }) => (predicted === null ? intent : [intent, predicted]))),
  ];
  const place = new Map(labels.map((label, index) => [label, index]));
  return {
    labels,
    utterances: heldOut.map(({ utterance }) => utterance),
    texts: heldOut.map(({ text }) => text),
    intents: Int32Array.from(heldOut, ({ intent }) => place.get(intent)!),
    predicted: Int32Array.from(heldOut, ({ predicted }) => (predicted === null ? -1 : place.get(predicted)!)),
    confidences: Float64Array.from(heldOut, ({ confidence }) => confidence),
    ownConfidences: Float64Array.from(heldOut, ({ ownConfidence }) => ownConfidence),
  };
}

/**
 * Writes a model file.
 * @param document the bot it was taught with
 * @param allocate gives the memory, which may be shared; zeros
 */
export function writeModelFile(
  document: BotDocument,
  { heldOut, ...model }: RecogniserModel,
  allocate: (size: number) => Uint8Array = (size) => new Uint8Array(size),
): Uint8Array {
  const plain = withoutArrays(model);
  const columns = withoutArrays(columnsOf(heldOut));
  const parts: { name: string; type: Section['type']; bytes: Uint8Array }[] = [
    { name: 'document', type: 'json', bytes: encoder.encode(JSON.stringify(storedDocument(document))) },
    { name: 'model', type: 'json', bytes: encoder.encode(plain.json) },
    { name: 'held out', type: 'json', bytes: encoder.encode(columns.json) },
  ];
  for (const [of, arrays] of [
    ['model', plain.arrays],
    ['held out', columns.arrays],
  ] as const) {
    arrays.forEach((array, index) => {
      const bytes = new Uint8Array(array.buffer, array.byteOffset, array.byteLength);
      parts.push({ name: `${of}: array ${index}`, type: array.constructor.name as keyof typeof ARRAYS, bytes });
    });
  }
  let size = 0;
  const sections = parts.map(({ name, type, bytes }): Section => {
    const offset = size;
    size = aligned(size + bytes.length);
    return { name, type, offset, length: bytes.length };
  });
  const header: ModelHeader = {
    format: FORMAT,
    recogniser: MODEL_VERSION,
    encoder: model.encoded ? ENCODER_VERSION : null,
    fingerprint: fingerprintOfDocument(document),
    checksum: '0'.repeat(16),
    sections,
    facts: { leftOut: model.leftOut, unread: model.unread },
  };
  const start = startAfter(encoder.encode(JSON.stringify(header)).length);
  const file = allocate(start + size);
  sections.forEach(({ offset }, index) => file.set(parts[index]!.bytes, start + offset));
  header.checksum = fingerprintOf(file.subarray(start));
  const head = encoder.encode(JSON.stringify(header));
  file.set(encoder.encode(MAGIC));
  new DataView(file.buffer, file.byteOffset).setUint32(MAGIC.length, head.length, true);
  file.set(head, MAGIC.length + 4);
  return file;
}

const startAfter = (headLength: number): number => aligned(MAGIC.length + 4 + headLength);

/** A file that is no model, or not one that this program reads. */
export class ModelFileError extends Error {}

/** Looks at a model file without opening it. @throws ModelFileError */
export function lookAtModelFile(bytes: Uint8Array): ModelFile {
  const length = MAGIC.length + 4;
  if (bytes.length < length || decoder.decode(bytes.subarray(0, MAGIC.length)) !== MAGIC) {
    throw new ModelFileError('This is no model file.');
  }
  const head = new DataView(bytes.buffer, bytes.byteOffset).getUint32(MAGIC.length, true);
  let header: ModelHeader;
  try {
    header = JSON.parse(decoder.decode(bytes.subarray(length, length + head))) as ModelHeader;
  } catch {
    throw new ModelFileError('The model file is damaged.');
  }
  if (header.format !== FORMAT || header.recogniser !== MODEL_VERSION) {
    throw new ModelFileError('The model file is of another version of the recogniser.');
  }
  if (header.encoder !== null && header.encoder !== ENCODER_VERSION) {
    throw new ModelFileError('The model was taught with another encoder.');
  }
  const last = header.sections.at(-1);
  const start = startAfter(head);
  if (last && start + last.offset + last.length > bytes.length)
    throw new ModelFileError('The model file is cut short.');
  return { bytes, header, start };
}

function sectionOf({ bytes, header, start }: ModelFile, name: string): { section: Section; own: Uint8Array } {
  const section = header.sections.find((one) => one.name === name);
  if (!section) throw new ModelFileError('The model file is damaged.');
  return { section, own: bytes.subarray(start + section.offset, start + section.offset + section.length) };
}

const jsonOf = (file: ModelFile, name: string): unknown => JSON.parse(decoder.decode(sectionOf(file, name).own));

function numbersOf(file: ModelFile, name: string): NumberArray {
  const { section, own } = sectionOf(file, name);
  const Kind = ARRAYS[section.type as keyof typeof ARRAYS];
  return new Kind(own.buffer as ArrayBuffer, own.byteOffset, own.byteLength / Kind.BYTES_PER_ELEMENT);
}

const plainOf = (file: ModelFile, name: string): unknown =>
  withArrays(jsonOf(file, name), (section) => numbersOf(file, `${name}: ${section}`));

/** The bot that a model was taught with. */
export const documentOf = (file: ModelFile): BotDocument => upgradeDocument(jsonOf(file, 'document'));

/** What models that had not learned from an utterance made of it. */
export function heldOutOf(file: ModelFile): HeldOutPrediction[] {
  const columns = plainOf(file, 'held out') as HeldOutColumns;
  const { labels, utterances, texts, intents, predicted, confidences, ownConfidences } = columns;
  return utterances.map((utterance, row) => ({
    intent: labels[intents[row]!]!,
    utterance,
    text: texts[row]!,
    predicted: predicted[row] === -1 ? null : labels[predicted[row]!]!,
    confidence: confidences[row]!,
    ownConfidence: ownConfidences[row]!,
  }));
}

/** Opens a model file whole. @throws ModelFileError where its bytes are not those that were written */
export function readModelFile(file: ModelFile): { document: BotDocument; model: RecogniserModel } {
  if (fingerprintOf(file.bytes.subarray(file.start)) !== file.header.checksum) {
    throw new ModelFileError('The model file is damaged.');
  }
  const model = plainOf(file, 'model') as Omit<RecogniserModel, 'heldOut'>;
  return { document: documentOf(file), model: { ...model, heldOut: heldOutOf(file) } };
}
