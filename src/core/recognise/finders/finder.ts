import type { Entity, EntityKind } from '../../bot/document.js';
import type { Language } from '../../language/language.js';
import type { TokenisedText } from '../../text/tokens.js';
import type { Value } from '../value.js';

/** How a value was recognised. */
export type Match = 'exact' | 'inflected' | 'misspelt' | 'computed';

/** A value found in a text. Offsets are UTF-16 code units of the original text. */
export interface Candidate {
  entity: string;
  kind: EntityKind;
  start: number;
  end: number;
  value: Value;
  match: Match;
  /** The two ends of a stretch ("from Friday to Monday"), for forms in which they are values of two slots. */
  ends?: readonly Pick<Candidate, 'start' | 'end' | 'value'>[];
  /** Other values of the same entity that these words could equally mean. */
  alternatives?: Value[];
}

/** What a finder knows of the bot it works for. */
export interface FinderSettings {
  /** The language its customers write. */
  language: Language;
  /** ISO 3166 country. */
  region: string;
  /** Words that the bot's utterances use, folded; they are never taken for misspellings. */
  vocabulary: ReadonlySet<string>;
}

/** A candidate without what is the same for all candidates of an entity. */
export type Found = Omit<Candidate, 'entity' | 'kind'>;

/**
 * Finds the values of one entity.
 * @param now local ISO time that relative dates are reckoned from
 * @returns values in text order; never throws on odd input
 */
export type FindValues = (text: TokenisedText, now: string) => Found[];

/** Finds values of some kinds. To add one: a file here, and a line in the list of `finders/index.ts`. */
export interface Finder {
  readonly kinds: readonly EntityKind[];
  /** Builds, once a bot, what finds the values of an entity. */
  prepare(entity: Entity, settings: FinderSettings): FindValues;
}
