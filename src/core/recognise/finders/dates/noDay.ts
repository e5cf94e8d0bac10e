import type { Language } from '../../../language/language.js';
import type { TokenisedText } from '../../../text/tokens.js';
import { wordsOfText } from '../words.js';

/** Whether a text names a day that no calendar has. */
export function namesNoDay(text: TokenisedText, language: Language): boolean {
  const words = wordsOfText(text, language);
  return words.some((_, at) => language.days.noDayAt(words, at) > 0);
}
