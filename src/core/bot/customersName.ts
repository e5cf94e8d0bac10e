import { findIntent, type BotDocument, type Intent } from './document.js';
import { languageOf } from '../language/index.js';
import type { Language } from '../language/language.js';
import { variants } from './localised.js';

/** How an intent may be named to a customer, made from its name: `change_order` is "change an order". */
export function proposedName(name: string, { naming }: Language): string {
  const words = name
    .replace(/(\p{Ll})(\p{Lu})/gu, '$1 $2')
    .replace(/[_-]+/gu, ' ')
    .trim()
    .toLowerCase()
    .split(' ');
  return naming.asDoing(words);
}

/** How an intent is named to a customer. @param tag BCP 47 tag of the language that it is named in */
export function customersName(document: BotDocument, name: string, tag = document.languages[0] ?? 'en'): string {
  return variants(findIntent(document, name)?.called, tag)[0] ?? proposedName(name, languageOf(document));
}

/** Whether an intent is offered in clarifications and help: as it says, else all but thanks, greetings and the like. */
export const isOffered = (intent: Pick<Intent, 'name' | 'offered'>, { naming }: Language): boolean =>
  intent.offered ?? !naming.isSmallTalk(intent.name);
