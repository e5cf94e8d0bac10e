/** Numbers in a sentence vector. */
export const VECTOR_LENGTH = 384;

/**
 * Names the weights that a vector came from: the version in `models/encoder/encoder.json`. Vectors and models of another
 * version are made anew.
 */
export const ENCODER_VERSION = 'e12-384-9c7af0428a';

/** The most pieces of one text that are read; the rest is left out. */
export const LONGEST_TEXT = 128;

/** Languages that the sentence encoder reads; for others n-grams alone carry the recognition. */
const ENCODER_LANGUAGES: readonly string[] = ['en'];

/** Whether the encoder reads a language, in whatever country it is spoken. @param tag such as `en` or `en-GB` */
export const isEncodedLanguage = (tag: string): boolean => ENCODER_LANGUAGES.includes(tag.toLowerCase().split('-')[0]!);

/**
 * Turns texts into unit vectors of {@link VECTOR_LENGTH} numbers. Texts of like meaning lie close together. What
 * `wordsText` made is turned into views of its words instead.
 */
export interface Encoder {
  /** @returns what each text is turned into, in their order */
  encode(texts: readonly string[]): Promise<Float32Array[]>;
}

/** Vectors by the exact text they were made from. */
export type Vectors = ReadonlyMap<string, Float32Array>;

/** For languages without an encoder, and where none is at hand. */
export const NO_VECTORS: Vectors = new Map();

/** Encodes texts, each once, and keeps their vectors by text. */
export async function encodeTexts(encoder: Encoder, texts: readonly string[]): Promise<Map<string, Float32Array>> {
  const different = [...new Set(texts)];
  return vectorsByText(different, await encoder.encode(different));
}

/** @param vectors one a text, in their order */
function vectorsByText(texts: readonly string[], vectors: readonly Float32Array[]): Map<string, Float32Array> {
  const byText = new Map<string, Float32Array>();
  vectors.forEach((vector, index) => byText.set(texts[index]!, vector));
  return byText;
}
