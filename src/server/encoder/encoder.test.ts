import { cpSync, mkdtempSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { emptyBot } from '../../core/bot/document.js';
import { encodeTexts, ENCODER_VERSION, VECTOR_LENGTH, type Encoder } from '../../core/encode/encoder.js';
import { PieceSplitter } from '../../core/encode/pieces.js';
import { VIEW_LENGTH, wordsText } from '../../core/encode/words.js';
import { prepareTraining } from '../../core/recognise/train.js';
import { encoderFolder, readEncoderFiles } from './files.js';
import { loadEncoder } from './load.js';
import { EncoderThreads } from './threads.js';

/** Pieces and vectors of some texts by the library that the weights were taught with, before they were rounded. */
interface Reference {
  text: string;
  pieces: number[];
  vector: number[];
  /** Of its first three pieces, not yet of length one. */
  views: number[][];
}

const references = JSON.parse(readFileSync(path.join(encoderFolder(), 'reference.json'), 'utf8')) as Reference[];
const TEXTS = references.map(({ text }) => text);

const cosine = (a: ArrayLike<number>, b: ArrayLike<number>): number =>
  Array.from(a).reduce((sum, value, index) => sum + value * b[index]!, 0);

describe('the sentence encoder', () => {
  let encoder: Encoder;

  beforeAll(async () => {
    encoder = await loadEncoder(encoderFolder());
  });

  it('cuts texts into the pieces of the reference', async () => {
    const { pieces } = await readEncoderFiles(encoderFolder());
    const splitter = new PieceSplitter(pieces);
    for (const { text, pieces: wanted } of references) expect(splitter.split(text, 128), text).toEqual(wanted);
  });

  it('gives the vectors of the reference, but for the rounding of its weights and of what they are multiplied with', async () => {
    const own = await encoder.encode(TEXTS);
    references.forEach(({ text, vector }, at) => {
      expect(own[at]).toHaveLength(VECTOR_LENGTH);
      // Hundreds of words that are none lie farther from what was taught.
      expect(cosine(own[at]!, vector), text).toBeGreaterThan(text.startsWith('word0 ') ? 0.99 : 0.995);
    });
  });

  it('gives the views of words of the reference, each in its sentence, and zeros beyond what it reads', async () => {
    const { text, views } = references.find((reference) => reference.text.startsWith('the close was'))!;
    const words = text.split(' ');
    const [own] = await encoder.encode([wordsText(words.map((word) => ({ text: word, isWord: true })))]);
    expect(own).toHaveLength(words.length * VIEW_LENGTH);
    views.forEach((view, at) => {
      const length = Math.hypot(...view);
      const seen = own!.subarray(at * VIEW_LENGTH, (at + 1) * VIEW_LENGTH);
      expect(cosine(seen, view) / length, words[at]).toBeGreaterThan(0.99);
    });
    const [many] = await encoder.encode([
      wordsText(Array.from({ length: 200 }, () => ({ text: 'word', isWord: true }))),
    ]);
    expect(Math.hypot(...many!.subarray(0, VIEW_LENGTH))).toBeCloseTo(1, 5);
    expect(Math.hypot(...many!.subarray(-VIEW_LENGTH))).toBe(0);
  });

  it('gives a text the same vector alone and among others, of length one', async () => {
    const together = await encoder.encode([...TEXTS, ...TEXTS.toReversed()]);
    for (const [index, text] of TEXTS.entries()) {
      const [alone] = await encoder.encode([text]);
      expect([...alone!]).toEqual([...together[index]!]);
      expect([...alone!]).toEqual([...together[2 * TEXTS.length - 1 - index]!]);
      expect(Math.hypot(...alone!)).toBeCloseTo(1, 5);
    }
  });

  it('puts like meanings nearer than like words', async () => {
    const [closing, shut, closed] = await encoder.encode([
      'what time do you close',
      'when does the shop shut',
      'the close was beautiful in spring',
    ]);
    expect(cosine(closing!, shut!)).toBeGreaterThan(cosine(closing!, closed!));
  });

  it('knows the vectors of the background, as it would make them', async () => {
    const { known } = await readEncoderFiles(encoderFolder());
    const { texts } = prepareTraining(emptyBot('background'));
    expect(texts.filter((text) => !known.has(text))).toEqual([]);
    // A space more makes another text of the same pieces.
    for (const text of texts.slice(0, 5)) {
      const [made] = await encoder.encode([`${text} `]);
      expect(cosine(made!, known.get(text)!), text).toBeGreaterThan(0.9999);
    }
  });

  it('encodes each of repeated texts once', async () => {
    const vectors = await encodeTexts(encoder, ['a', 'b', 'a']);
    expect([...vectors.keys()]).toEqual(['a', 'b']);
  });
});

describe('threads that encode', () => {
  it('encode a text once that several wait for, and what people wait for first', async () => {
    const threads = new EncoderThreads();
    const order: string[] = [];
    const bulk = Array.from({ length: 60 }, (_, at) => `parcel number ${at} is late`);
    const all = threads.encode('bulk', bulk).then((vectors) => {
      order.push('bulk');
      return vectors;
    });
    const asked = threads.encode('person', ['where is my parcel', bulk[59]!]).then((vectors) => {
      order.push('person');
      return vectors;
    });
    const alone = await threads.encode('person', ['where is my parcel']);
    const [many, few] = await Promise.all([all, asked]);
    expect(order).toEqual(['bulk', 'person']);
    expect([...many.keys()]).toEqual(bulk);
    expect(few.get(bulk[59]!)).toBe(many.get(bulk[59]!));
    expect(alone.get('where is my parcel')).toBe(few.get('where is my parcel'));
    const first = threads.encode(
      'bulk',
      bulk.map((text) => `${text} again`),
    );
    let done = false;
    void first.then(() => (done = true));
    await threads.encode('person', ['can somebody ring me back please']);
    expect(done).toBe(false);
    await first;
    await threads.close();
  });
});

describe('the files of the encoder', () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'reed-gate-encoder-'));
  const inFolder = (name: string) => path.join(folder, name);

  beforeAll(() => cpSync(encoderFolder(), folder, { recursive: true }));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  /** What reading says after a change, which is taken back. */
  async function saidAfter(name: string, change: (file: string) => void): Promise<string> {
    const before = readFileSync(inFolder(name));
    change(inFolder(name));
    const said = await readEncoderFiles(folder).then(
      () => 'nothing',
      (error: Error) => error.message,
    );
    writeFileSync(inFolder(name), before);
    return said;
  }

  it('are read where all are whole', async () => {
    const { pieces, lower, upper } = await readEncoderFiles(folder);
    expect(pieces.length).toBeGreaterThan(10_000);
    for (const weights of [lower, upper]) expect(weights.length).toBeGreaterThan(5_000_000);
  });

  it('are refused with the name of a part that is missing, cut short or changed in a bit', async () => {
    const part = 'lower-02.part';
    const how = 'Bring the files of models/encoder back from the repository (git checkout -- models/encoder).';
    expect(await saidAfter(part, (file) => rmSync(file))).toBe(
      `The sentence encoder cannot be read: ${part} is missing. ${how}`,
    );
    expect(await saidAfter(part, (file) => truncateSync(file, 1000))).toContain(`${part} is damaged`);
    const flip = (file: string) => {
      const bytes = readFileSync(file);
      bytes[bytes.length >> 1]! ^= 1;
      writeFileSync(file, bytes);
    };
    expect(await saidAfter(part, flip)).toContain(`${part} is damaged`);
    expect(await saidAfter('pieces.txt', flip)).toContain('pieces.txt is damaged');
    expect(await saidAfter('encoder.json', (file) => rmSync(file))).toContain('encoder.json is missing or damaged');
  });

  it('are refused where they are of another version than the program, whose vectors would mean nothing', async () => {
    const other = (file: string) =>
      writeFileSync(file, readFileSync(file, 'utf8').replace(ENCODER_VERSION, 'xx-384-0000000000'));
    expect(await saidAfter('encoder.json', other)).toContain('its files are of version xx-384-0000000000');
  });
});
