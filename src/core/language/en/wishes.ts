import type { WishWords } from '../talk.js';

/** What may stand between two clauses of one stretch: "12 Sluice Lane, Dunlow". */
const BETWEEN = /^[\s,.;:!?–—-]*(?:and|then|but)?\s*$/iu;

const ONE_OF = /(?:^|\s)(?:the|an?)\s+(\p{L}{3,})\s+(?:one|kind|sort|type)s?(?=\P{L}|$)/giu;

/** What people are counted as. */
const COUNTED = /(?<=^|[^\p{L}])(?:adults?|children|child|kids?|people|persons?|guests?|of\s+us)(?=[^\p{L}]|$)/giu;

/** Words by which a slot asks for what happened, in the customer's own words. */
const ASKS_FOR_STORY = /happen|problem|wrong|issue|fault|complain|trouble|matter|what is it about|story|concern/i;

/** What joins a value to the words around it, at either end of them. */
const EDGE = /\s+and\s*$|^\s*and\s/gu;

export const WISHES: WishWords = {
  joinsClauses: (between) => BETWEEN.test(between),
  oneOf: ONE_OF,
  counted: COUNTED,
  asksForStory: (words) => ASKS_FOR_STORY.test(words),
  edge: EDGE,
};
