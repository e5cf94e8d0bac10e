import type { References } from '../talk.js';

const BEFORE = new Set(['my', 'our', 'the', 'your', 'this', 'that']);
const NUMBER = /^(?:n(?:o|r|um|umber)s?|refs?|references?|codes?|ids?)$/;

export const REFERENCES: References = {
  leadsTo: (word) => BEFORE.has(word),
  isNumber: (word) => NUMBER.test(word),
  owned: (noun) => `my ${noun}`,
};
