import { ENGINE_TEXTS, TEXT_NAMES } from '../say/engineTexts.js';
import { textOf } from '../say/texts.js';
import type { Found, FoundKind } from '../contract/find.js';
import type { BotDocument } from './document.js';
import { variants } from './localised.js';

/** Settings by what people call them. */
const SETTINGS = ['name', 'languages', 'time zone', 'country'];

/** Finds of one kind at most, so that words which stand in thousands of utterances leave room for names. */
const MOST_OF_KIND = 8;

/** An address; made for each of thousands of rows, so in the fastest way. */
const at = (path: string, parts: Record<string, string>): string =>
  `${path}?${Object.entries(parts)
    .map(([name, value]) => `${name}=${encodeURIComponent(value)}`)
    .join('&')}`;

/** Everything of a bot that can be gone to, in the order in which kinds are shown. */
function* everything(document: BotDocument): Generator<Found> {
  for (const { name, description } of document.intents) {
    yield { kind: 'intent', label: name, hint: description ?? '', to: at('teach', { intent: name }) };
  }
  for (const { name } of document.forms) yield { kind: 'form', label: name, hint: '', to: at('say', { form: name }) };
  for (const form of document.forms) {
    for (const { name } of form.slots) {
      yield { kind: 'slot', label: name, hint: form.name, to: at('say', { form: form.name }) };
    }
  }
  for (const { name, kind } of document.entities) {
    yield { kind: 'entity', label: name, hint: kind, to: at('teach/entities', { entity: name }) };
  }
  for (const { name, description } of document.desks) {
    yield { kind: 'desk', label: name, hint: description ?? '', to: 'say/texts' };
  }
  for (const label of SETTINGS) yield { kind: 'setting', label, hint: '', to: 'settings' };
  for (const name of TEXT_NAMES) {
    const { when } = ENGINE_TEXTS[name];
    const hint = variants(textOf(document, name), document.languages[0] ?? 'en')[0] ?? '';
    yield { kind: 'sentence', label: when, hint, to: 'say/texts' };
  }
  for (const { name, values } of document.entities) {
    for (const { id, value, synonyms } of values ?? []) {
      const hint = [name, ...synonyms].join(', ');
      yield { kind: 'value', label: value, hint, to: at('teach/entities', { entity: name, row: id }) };
    }
  }
  for (const { name, utterances } of document.intents) {
    for (const { id, text } of utterances) {
      yield { kind: 'utterance', label: text, hint: name, to: at('teach', { intent: name, row: id }) };
    }
  }
}

/** Whether every word stands in it. */
const holds = ({ label, hint, kind }: Found, words: readonly string[]): boolean => {
  const text = `${label} ${hint} ${kind}`.toLowerCase();
  return words.every((word) => text.includes(word));
};

/**
 * What has some words in its name or text.
 * @param others what belongs to the bot and is not in its document
 * @param most how many are given
 */
export function findInBot(document: BotDocument, text: string, others: readonly Found[], most: number): Found[] {
  const words = text.toLowerCase().split(/\s+/u).filter(Boolean);
  if (words.length === 0) return [];
  const counts = new Map<FoundKind, number>();
  const found: Found[] = [];
  const take = (one: Found): void => {
    const count = counts.get(one.kind) ?? 0;
    if (count >= MOST_OF_KIND || !holds(one, words)) return;
    counts.set(one.kind, count + 1);
    found.push(one);
  };
  for (const one of others) take(one);
  for (const one of everything(document)) take(one);
  return found.slice(0, most);
}
