import { entitiesInUse, type BotDocument } from '../../bot/document.js';
import { plainText } from '../../bot/marking.js';
import { tokenise, type TokenisedText } from '../../text/tokens.js';
import { addressFinder } from './address.js';
import { emailFinder, phoneFinder, urlFinder } from './contact.js';
import { dateFinder, datetimeFinder, timeFinder } from './date.js';
import type { Candidate, Finder, FinderSettings } from './finder.js';
import { listFinder } from './list.js';
import { numberFinder, ordinalFinder } from './number.js';
import { patternFinder } from './pattern.js';

/** All finders. Where two find the same words, the earlier one wins. */
const FINDERS: readonly Finder[] = [
  patternFinder,
  listFinder,
  emailFinder,
  urlFinder,
  phoneFinder,
  addressFinder,
  datetimeFinder,
  dateFinder,
  timeFinder,
  ordinalFinder,
  numberFinder,
];

/** Finds every value of a bot's entities in a text, overlaps settled, in text order. */
export type FindAll = (text: TokenisedText, now: string) => Candidate[];

/**
 * Settles overlaps by one rule: the longer stretch of words wins; of equally long ones, the earlier finder.
 * Entities that find the very same words stay beside each other; the slots of a form choose between them.
 */
export function settleOverlaps(candidates: readonly Candidate[]): Candidate[] {
  const kept: Candidate[] = [];
  const byLength = [...candidates].sort((a, b) => b.end - b.start - (a.end - a.start));
  for (const candidate of byLength) {
    const clash = kept.some(
      (other) =>
        candidate.start < other.end &&
        other.start < candidate.end &&
        !(candidate.start === other.start && candidate.end === other.end),
    );
    if (!clash) kept.push(candidate);
  }
  return kept.sort((a, b) => a.start - b.start);
}

/** The folded words of all utterances. */
function utteranceVocabulary(document: BotDocument): Set<string> {
  const words = new Set<string>();
  for (const intent of document.intents) {
    for (const utterance of intent.utterances) {
      for (const token of tokenise(plainText(utterance)).tokens) words.add(token.norm);
    }
  }
  return words;
}

/** Prepares the finders of a bot. */
export function prepareFinders(document: BotDocument): FindAll {
  const settings: FinderSettings = { region: document.region, vocabulary: utteranceVocabulary(document) };
  const entities = entitiesInUse(document);
  const prepared = FINDERS.flatMap((finder) =>
    entities
      .filter((entity) => finder.kinds.includes(entity.kind))
      .map((entity) => ({ entity, find: finder.prepare(entity, settings) })),
  );
  return (text, now) =>
    settleOverlaps(
      prepared.flatMap(({ entity, find }) =>
        find(text, now).map((found) => ({ ...found, entity: entity.name, kind: entity.kind })),
      ),
    );
}
