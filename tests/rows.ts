import type { ListValue, Utterance } from '../src/core/bot/document.js';
import { readMarking } from '../src/core/bot/marking.js';

/** Utterances of a document, from inline marking. */
export const utterances = (...sources: string[]): Utterance[] =>
  sources.map((source, index) => ({ id: `t${index + 1}`, ...readMarking(source) }));

/** A value of a list with its synonyms. */
export const listValue = (value: string, ...synonyms: string[]): ListValue => ({ id: value, value, synonyms });
