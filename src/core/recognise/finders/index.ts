import { entitiesInUse, type BotDocument } from '../../bot/document.js';
import { languageOf } from '../../language/index.js';
import type { TokenisedText } from '../../text/tokens.js';
import { addressFinder } from './address.js';
import { emailFinder, phoneFinder, urlFinder } from './contact.js';
import { countryFinder } from './country.js';
import { dateFinder, datetimeFinder, noDayFinder, timeFinder } from './date.js';
import { durationFinder } from './duration.js';
import type { Candidate, Finder, FinderSettings, FindValues, Found } from './finder.js';
import { listFinder } from './list.js';
import { moneyFinder, percentFinder } from './money.js';
import { numberFinder, ordinalFinder } from './number.js';
import { patternFinder } from './pattern.js';
import { personFinder } from './person.js';
import { quantityFinder } from './quantity.js';

/** All finders. Where two find the same words, the earlier one wins. */
const FINDERS: readonly Finder[] = [
  patternFinder,
  listFinder,
  emailFinder,
  urlFinder,
  phoneFinder,
  addressFinder,
  countryFinder,
  personFinder,
  datetimeFinder,
  dateFinder,
  timeFinder,
  moneyFinder,
  percentFinder,
  quantityFinder,
  durationFinder,
  ordinalFinder,
  numberFinder,
];

/** A value that another took the words of. */
export interface Overlapped {
  candidate: Candidate;
  by: Candidate;
}

/**
 * Finds every value of a bot's entities in a text, overlaps settled, in text order.
 * @param overlapped is filled with the values that gave way, where it is given
 * @param failed is filled with the entities that could not be looked for in this text: the others are found all the same
 */
export type FindAll = (text: TokenisedText, now: string, overlapped?: Overlapped[], failed?: string[]) => Candidate[];

/**
 * Settles overlaps by one rule: the longer stretch of words wins; of equally long ones, the earlier finder.
 * Entities that find the very same words stay beside each other; the slots of a form choose between them.
 */
export function settleOverlaps(candidates: readonly Candidate[], overlapped: Overlapped[] = []): Candidate[] {
  const kept: Candidate[] = [];
  // Which of those kept has each place in the text.
  const holders: (Candidate | undefined)[] = [];
  const byLength = [...candidates].sort((a, b) => b.end - b.start - (a.end - a.start));
  for (const candidate of byLength) {
    let by: Candidate | undefined;
    for (let at = candidate.start; at < candidate.end && !by; at++) {
      const holder = holders[at];
      if (holder && (holder.start !== candidate.start || holder.end !== candidate.end)) by = holder;
    }
    if (by) overlapped.push({ candidate, by });
    else {
      kept.push(candidate);
      for (let at = candidate.start; at < candidate.end; at++) holders[at] = candidate;
    }
  }
  return kept.sort((a, b) => a.start - b.start);
}

/** What is part of one of these is no plain number, whether the bot asks for it or not: "a hundred quid", "5 March". */
const NO_NUMBERS: readonly Finder[] = [moneyFinder, percentFinder, dateFinder, noDayFinder, phoneFinder];

/** Prepares the finders of a bot. @param vocabulary words that are never taken for misspellings */
export function prepareFinders(document: BotDocument, vocabulary: ReadonlySet<string>): FindAll {
  const settings: FinderSettings = { language: languageOf(document), region: document.region, vocabulary };
  const entities = entitiesInUse(document);
  const prepared = FINDERS.flatMap((finder) =>
    entities
      .filter((entity) => finder.kinds.includes(entity.kind))
      .map((entity) => ({ entity, find: finder.prepare(entity, settings) })),
  );
  const hasNumbers = entities.some(({ kind }) => kind === 'number');
  const noNumbers = hasNumbers
    ? NO_NUMBERS.map((finder) => finder.prepare({ name: '', kind: 'number' }, settings))
    : [];
  return (text, now, overlapped, failed) => {
    /** No text makes a reading fail: a finder that throws finds nothing in it, and that is told. */
    const tried = (find: FindValues, entity: string): Found[] => {
      try {
        return find(text, now);
      } catch {
        failed?.push(entity);
        return [];
      }
    };
    const found = prepared.flatMap(({ entity, find }) =>
      tried(find, entity.name).map((value): Candidate => ({ ...value, entity: entity.name, kind: entity.kind })),
    );
    const other = found.some(({ kind }) => kind === 'number') ? noNumbers.flatMap((find) => tried(find, 'number')) : [];
    const numbers = found.filter(
      ({ kind, start, end }) =>
        kind !== 'number' ||
        !other.some((value) => value.start <= start && value.end >= end && value.end - value.start > end - start),
    );
    return settleOverlaps(numbers, overlapped);
  };
}
