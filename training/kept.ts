import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import type { Encoder } from '../src/core/encode/encoder.js';
import { encoderFolder } from '../src/server/encoder/files.js';
import { loadEncoder } from '../src/server/encoder/load.js';

/** The encoder, its vectors kept in a file for the next time. @param file where; `undefined`: nowhere */
export async function keeping(file: string | undefined): Promise<{ encoder: Encoder; keep: () => void }> {
  const real = await loadEncoder(encoderFolder());
  const known = new Map<string, Float32Array>();
  if (file !== undefined && existsSync(file)) {
    const bytes = readFileSync(file);
    const length = bytes.readUInt32LE(0);
    const texts = JSON.parse(bytes.toString('utf8', 4, 4 + length)) as [text: string, size: number][];
    const numbers = new Float32Array(bytes.buffer.slice(bytes.byteOffset + 4 + length));
    let from = 0;
    for (const [text, size] of texts) known.set(text, numbers.subarray(from, (from += size)));
  }
  return {
    encoder: {
      async encode(texts) {
        const missing = texts.filter((text) => !known.has(text));
        (await real.encode(missing)).forEach((vector, at) => known.set(missing[at]!, vector));
        return texts.map((text) => known.get(text)!);
      },
    },
    keep() {
      if (file === undefined) return;
      const texts = Buffer.from(JSON.stringify([...known].map(([text, vector]) => [text, vector.length])));
      const length = Buffer.alloc(4);
      length.writeUInt32LE(texts.length);
      const numbers = [...known.values()].map((one) => Buffer.from(one.buffer, one.byteOffset, one.byteLength));
      writeFileSync(file, Buffer.concat([length, texts, ...numbers]));
    },
  };
}
