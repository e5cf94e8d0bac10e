import { createRequire } from 'node:module';
import path from 'node:path';
import { beforeAll, describe, expect, it } from 'vitest';
import { encodeTexts, type Encoder } from '../../core/encode/encoder.js';
import { encoderFolder, loadEncoder } from './load.js';
import { loadReferenceEncoder } from '../../../tests/referenceEncoder.js';

const TEXTS = [
  'I would like two lavender, please',
  'wat time do yuo shut',
  '',
  '🌱🌱 ¿dónde está mi pedido? \u0007',
  'a',
  Array.from({ length: 400 }, (_, index) => `word${index}`).join(' '),
];

const cosine = (a: Float32Array, b: Float32Array): number =>
  a.reduce((sum, value, index) => sum + value * b[index]!, 0);

describe('the sentence encoder', () => {
  let encoder: Encoder;

  beforeAll(async () => {
    encoder = await loadEncoder(encoderFolder());
  });

  it('gives the vectors of the reference to 1e-4', async () => {
    const kernels = path.dirname(createRequire(import.meta.url).resolve('@tensorflow/tfjs-backend-wasm'));
    const reference = await loadReferenceEncoder({ weights: encoderFolder(), kernels: `${kernels}/` });
    const [own, wanted] = [await encoder.encode(TEXTS), await reference.encode(TEXTS)];
    own.forEach((vector, index) => {
      const furthest = vector.reduce((most, value, at) => Math.max(most, Math.abs(value - wanted[index]![at]!)), 0);
      expect(furthest, TEXTS[index]).toBeLessThan(1e-4);
    });
  });

  it('gives a text the same vector alone and in a batch, of length one', async () => {
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

  it('encodes each of repeated texts once', async () => {
    const vectors = await encodeTexts(encoder, ['a', 'b', 'a']);
    expect([...vectors.keys()]).toEqual(['a', 'b']);
  });
});
