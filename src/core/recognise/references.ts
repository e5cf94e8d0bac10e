import { entitiesInUse, type BotDocument } from '../bot/document.js';
import { languageOf } from '../language/index.js';
import type { TokenisedText } from '../text/tokens.js';
import { patternFinder } from './finders/pattern.js';

/** The code of something of the customer's, in a text, with the words that lead to it. Offsets are UTF-16 code units. */
export interface Reference {
  start: number;
  end: number;
  /** What is read in its place: "my order". */
  said: string;
}

export type FindReferences = (text: TokenisedText) => Reference[];

export const NO_REFERENCES: FindReferences = () => [];

/** Codes of fewer figures are sizes, kinds and the like, whose own words count. */
const FEWEST_FIGURES = 3;
/** A bot's patterns are found wherever they stand, whatever the day is. */
const ANY_DAY = '';
/** Between words that belong together stand these alone: "order no. #". */
const JOINS = /^[\s.:#]*$/u;

/**
 * Prepares the finding of order numbers and the like, for their place to be taken by what they are numbers of: the
 * encoder knows what an order is, and nothing of "LM-20419". What that is stands in the entity's name: `order_no`.
 * @param vocabulary words that are never taken for misspellings
 */
export function prepareReferences(document: BotDocument, vocabulary: ReadonlySet<string>): FindReferences {
  const language = languageOf(document);
  const { leadsTo, isNumber, owned } = language.references;
  const found = entitiesInUse(document)
    .filter(({ kind }) => patternFinder.kinds.includes(kind))
    .flatMap((entity) => {
      const noun = entity.name
        .toLowerCase()
        .split(/[\s_-]+/u)
        .filter((word) => !isNumber(word));
      const find = patternFinder.prepare(entity, { language, region: document.region, vocabulary });
      return noun.length === 0 ? [] : [{ noun, find }];
    });
  if (found.length === 0) return NO_REFERENCES;
  return (text) => {
    const { tokens } = text;
    const isBeside = (at: number, start: number) => at >= 0 && JOINS.test(text.text.slice(tokens[at]!.end, start));
    const references = found.flatMap(({ noun, find }) =>
      find(text, ANY_DAY)
        .filter(({ value }) => typeof value === 'string' && value.replace(/\D/gu, '').length >= FEWEST_FIGURES)
        .map(({ start, end }): Reference => {
          let at = tokens.findIndex((token) => token.start >= start) - 1;
          let from = start;
          const take = (fits: (word: string) => boolean): void => {
            if (!isBeside(at, from) || !fits(tokens[at]!.mended)) return;
            from = tokens[at]!.start;
            at--;
          };
          take(isNumber);
          for (const word of noun.toReversed()) take((other) => other === word);
          take(leadsTo);
          return { start: from, end, said: owned(noun.join(' ')) };
        }),
    );
    references.sort((a, b) => a.start - b.start);
    return references.filter(({ start }, at) => at === 0 || start >= references[at - 1]!.end);
  };
}
