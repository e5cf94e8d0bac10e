import { isShouted, tidy } from '../text/tokens.js';

/** Numbers of orders, accounts and the like. */
const REFERENCES = /\b(?:[a-z]{1,3}-?\d{3,}|\d{5,})\b/gi;
/** What the encoder reads in place of a reference, which says nothing of what is wanted and confuses it. */
const REFERRED = 'it';
const APOSTROPHES = /[’‘`´]/g;
const QUOTES = /["“”„«»]/g;
const PICTURES = /\p{Extended_Pictographic}|\p{Emoji_Modifier}|[\u{1f1e6}-\u{1f1ff}]|\u200d|\ufe0f/gu;
/** A word that is shouted; shorter ones are short names and codes. */
const SHOUTED = /\p{Lu}{4,}/gu;
const ENDS = '.!?…,;:- ';

/**
 * A text as the sentence encoder reads it. The encoder tells texts apart by how they are typed, by capitals, signs at
 * the end, quotes and pictures; people type in all ways, so that these are brought to one form first.
 */
export function encoderText(text: string): string {
  const typed = text.replace(REFERENCES, REFERRED).replace(APOSTROPHES, "'").replace(QUOTES, '').replace(PICTURES, ' ');
  const plain = tidy(typed).trim();
  let length = plain.length;
  while (length > 0 && ENDS.includes(plain[length - 1]!)) length--;
  const [words, end] = [plain.slice(0, length), plain.slice(length)];
  const calm = isShouted(words) ? words.toLowerCase() : words.replace(SHOUTED, (word) => word.toLowerCase());
  return calm !== '' && end.includes('?') ? `${calm}?` : calm;
}
