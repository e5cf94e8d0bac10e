import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { ENCODER_VERSION } from '../../core/encode/encoder.js';

/** A file of the encoder with what it must be. */
interface KeptFile {
  name: string;
  /** Hexadecimal. */
  sha256: string;
}

/** The encoder's card for machines: `encoder.json`. */
interface Manifest {
  /** Names weights and vocabulary: vectors of another encoder are of no use. */
  version: string;
  pieces: KeptFile;
  lower: KeptParts;
  upper: KeptParts;
  /** Texts of the background with their vectors, which every bot is taught with. */
  known?: KeptFile;
}

/** Parts that are joined in this order. */
interface KeptParts {
  sha256: string;
  parts: KeptFile[];
}

/** What an encoder is made of. */
export interface EncoderFiles {
  /** In the order of their numbers. */
  pieces: string[];
  /** From pieces to their states half way up, and to how each is looked at: an ONNX model. */
  lower: Uint8Array;
  /** From there to the vector of the text: an ONNX model. */
  upper: Uint8Array;
  /** Vectors of some texts that need no work. */
  known: Map<string, Float32Array>;
}

const MANIFEST = 'encoder.json';
const HOW_TO_MEND = 'Bring the files of models/encoder back from the repository (git checkout -- models/encoder).';

/** The encoder's files are not as they should be; the message says which, and what to do. */
class EncoderFilesError extends Error {
  constructor(what: string) {
    super(`The sentence encoder cannot be read: ${what}. ${HOW_TO_MEND}`);
  }
}

/** The folder of the encoder's files: `models/encoder` of the product's own folder. */
export function encoderFolder(): string {
  let folder = import.meta.dirname;
  for (;;) {
    const own = path.join(folder, 'models', 'encoder');
    if (existsSync(own)) return own;
    const above = path.dirname(folder);
    if (above === folder) throw new EncoderFilesError('there is no folder models/encoder');
    folder = above;
  }
}

const digest = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

async function readWhole(folder: string, { name, sha256 }: KeptFile): Promise<Buffer> {
  let bytes: Buffer;
  try {
    bytes = await readFile(path.join(folder, name));
  } catch (error) {
    const missing = (error as NodeJS.ErrnoException).code === 'ENOENT';
    throw new EncoderFilesError(`${name} ${missing ? 'is missing' : `gives "${(error as Error).message}"`}`);
  }
  if (digest(bytes) !== sha256) throw new EncoderFilesError(`${name} is damaged`);
  return bytes;
}

/** Texts with their vectors, a line each: the numbers as 32-bit floats in base 64. */
function readKnown(text: string): Map<string, Float32Array> {
  const lines = text.split('\n').filter((line) => line !== '');
  return new Map(
    lines.map((line): [string, Float32Array] => {
      const [known, numbers] = line.split('\t');
      return [known!, new Float32Array(Uint8Array.from(Buffer.from(numbers!, 'base64')).buffer)];
    }),
  );
}

async function readManifest(folder: string): Promise<Manifest> {
  try {
    return JSON.parse(await readFile(path.join(folder, MANIFEST), 'utf8')) as Manifest;
  } catch {
    throw new EncoderFilesError(`${MANIFEST} is missing or damaged`);
  }
}

async function readJoined(folder: string, { sha256, parts }: KeptParts): Promise<Buffer> {
  const joined = Buffer.concat(await Promise.all(parts.map((part) => readWhole(folder, part))));
  if (digest(joined) !== sha256) throw new EncoderFilesError('the parts of its weights do not fit together');
  return joined;
}

/**
 * Reads the encoder's files and joins the parts of the weights.
 * @throws {EncoderFilesError} if one is missing or damaged, or all are of another version than the program
 */
export async function readEncoderFiles(folder: string): Promise<EncoderFiles> {
  const manifest = await readManifest(folder);
  if (manifest.version !== ENCODER_VERSION) {
    throw new EncoderFilesError(`its files are of version ${manifest.version}, the program is for ${ENCODER_VERSION}`);
  }
  const [pieces, lower, upper, known] = await Promise.all([
    readWhole(folder, manifest.pieces),
    readJoined(folder, manifest.lower),
    readJoined(folder, manifest.upper),
    manifest.known ? readWhole(folder, manifest.known) : Buffer.alloc(0),
  ]);
  return {
    pieces: pieces.toString('utf8').trimEnd().split('\n'),
    lower,
    upper,
    known: readKnown(known.toString('utf8')),
  };
}
