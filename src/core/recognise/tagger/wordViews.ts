import type { Vectors } from '../../encode/encoder.js';
import { VIEW_LENGTH, wordsText, type Part } from '../../encode/words.js';
import type { Language } from '../../language/language.js';
import type { Token, TokenisedText } from '../../text/tokens.js';

/** Words of a message that the encoder looks at for the taggers, at most. */
const MOST_VIEWED = 80;
/** Signs between two words that are told, at most. */
const MOST_SIGNS = 8;
/** Cosine of views from which two words are told to be near to each other. */
const NEAR = 0.5;

/** What the encoder is to look at for the taggers: the words of a message as they are read, and the signs between them. */
export function lookedAt({ text, tokens }: TokenisedText): string {
  const viewed = tokens.slice(0, MOST_VIEWED);
  const parts: Part[] = [];
  const addSigns = (from: number, to: number) => {
    const signs = text.slice(from, to).trim().slice(0, MOST_SIGNS);
    if (signs !== '') parts.push({ text: signs, isWord: false });
  };
  viewed.forEach((token, at) => {
    addSigns(viewed[at - 1]?.end ?? 0, token.start);
    parts.push({ text: token.mended === token.norm ? token.text : token.mended, isWord: true });
  });
  if (viewed.length > 0) addSigns(viewed.at(-1)!.end, tokens[viewed.length]?.start ?? text.length);
  return wordsText(parts);
}

/** How the encoder sees the words of one message in their sentence. */
export type WordViews = ReadonlyMap<Token, Float32Array>;

const UNSEEN: WordViews = new Map();

/** @param vectors with what the encoder made of {@link lookedAt}; without it no word is seen */
export function viewsOf(message: TokenisedText, vectors: Vectors): WordViews {
  const all = vectors.get(lookedAt(message));
  if (!all) return UNSEEN;
  const views = new Map<Token, Float32Array>();
  message.tokens.slice(0, all.length / VIEW_LENGTH).forEach((token, at) => {
    views.set(token, all.subarray(at * VIEW_LENGTH, (at + 1) * VIEW_LENGTH));
  });
  return views;
}

/** Words of values that a tagger learned from, to tell which of them a new one is like. Plain data. */
export interface TaughtWords {
  words: string[];
  /** The slot of each word, by its place. */
  slots: number[];
  /** words × {@link VIEW_LENGTH}. */
  views: Float32Array;
}

/** Gathers the words of values; words of structure tell nothing, and what was not seen is left out. */
export function gatherTaught(
  words: readonly { word: string; slot: number; view: Float32Array | null }[],
  { classOf }: Language,
): TaughtWords {
  const telling = words.filter(({ word, view }) => view !== null && classOf(word) === 'other');
  const views = new Float32Array(telling.length * VIEW_LENGTH);
  telling.forEach(({ view }, at) => views.set(view!, at * VIEW_LENGTH));
  return { words: telling.map(({ word }) => word), slots: telling.map(({ slot }) => slot), views };
}

/** The taught word of a slot that is nearest to one of these, where one is near; words of structure do not count. */
export function nearestTaught(
  taught: TaughtWords,
  words: readonly { word: string; view: Float32Array | undefined }[],
  slot: number,
  { classOf }: Language,
): { word: string; near: string } | null {
  let best = { word: '', near: '', height: NEAR };
  for (const { word, view } of words) {
    if (!view || classOf(word) !== 'other') continue;
    taught.words.forEach((near, place) => {
      if (near === word || taught.slots[place] !== slot) return;
      let height = 0;
      for (let at = 0; at < VIEW_LENGTH; at++) height += view[at]! * taught.views[place * VIEW_LENGTH + at]!;
      if (height > best.height) best = { word, near, height };
    });
  }
  return best.word === '' ? null : { word: best.word, near: best.near };
}
