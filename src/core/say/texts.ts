import type { Localised } from '../bot/localised.js';
import { LANGUAGES } from '../language/index.js';
import type { BotTexts, TextName } from './engineTexts.js';

/** The wording of a sentence where the bot has none of its own, by language. */
export const defaultText = (name: TextName): Localised =>
  Object.fromEntries(
    Object.entries(LANGUAGES).map(([code, language]) => {
      const texts: Record<TextName, string | readonly string[]> = language.texts;
      const wording = texts[name];
      return [code, typeof wording === 'string' ? wording : [...wording]];
    }),
  );

/** The bot's wording of a sentence, else the default. An empty text of the bot's own says nothing. */
export function textOf({ texts }: { texts: BotTexts }, name: TextName): Localised {
  return texts[name] ?? defaultText(name);
}
