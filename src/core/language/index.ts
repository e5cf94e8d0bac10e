import { BACKGROUND } from './en/background.js';
import { TEXTS } from './en/texts.js';

/** What a language brings, by its code: a folder each. */
export const LANGUAGES = {
  en: {
    /** Messages that belong to no particular bot. */
    background: BACKGROUND,
    /** What the bot says of its own accord. */
    texts: TEXTS,
  },
} as const;
