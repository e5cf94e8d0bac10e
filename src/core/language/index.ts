import { ENGLISH } from './en/index.js';
import type { Language } from './language.js';

/** All languages, by their code. To add one: a folder here that has what {@link Language} asks for, and a line. */
export const LANGUAGES = { en: ENGLISH } as const satisfies Record<string, Language>;

const byCode: Readonly<Record<string, Language | undefined>> = LANGUAGES;

/** The language of a tag ("en-GB"); `undefined` where there is no folder for it. */
export function languageNamed(tag: string): Language | undefined {
  const code = tag.toLowerCase().split('-')[0]!;
  return Object.hasOwn(byCode, code) ? byCode[code] : undefined;
}

/** The language of a bot's customers, its first; English where there is no folder for that. */
export const languageOf = ({ languages: [first = 'en'] }: { languages: readonly string[] }): Language =>
  languageNamed(first) ?? ENGLISH;
