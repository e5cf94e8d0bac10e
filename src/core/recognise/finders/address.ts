import type { Finder, Found } from './finder.js';

const STREET =
  'street|st|road|rd|lane|ln|avenue|ave|close|drive|dr|court|ct|way|place|pl|row|terrace|square|crescent|gardens|hill|walk|yard|mews|grove|green|park|parade|wharf|quay|boulevard|blvd';
const TOWN =
  "(?:,? (?!and\\b|please\\b|for\\b|on\\b|by\\b|thanks\\b)[\\p{Lu}][\\p{L}'’-]+(?: [\\p{Lu}][\\p{L}'’-]+){0,2}|, [\\p{L}'’-]+)";
const POSTCODE = '(?:,? (?:[A-Z]{1,2}\\d[A-Z\\d]? ?\\d[A-Z]{2}|\\d{5}(?:-\\d{4})?))';
const ADDRESS = new RegExp(
  `(?<![\\p{L}\\p{N}])(?:flat \\d+[a-z]?,? )?\\d{1,5}[a-z]? (?:[\\p{L}'’.-]+ ){1,4}?(?:${STREET})(?![\\p{L}])${TOWN}{0,2}${POSTCODE}?`,
  'giu',
);

/** Street addresses: a number, a street, and the town and postcode if they follow. The value is the text. */
export const addressFinder: Finder = {
  kinds: ['address'],
  prepare:
    () =>
    ({ text }) =>
      [...text.matchAll(ADDRESS)].map((match): Found => ({
        start: match.index,
        end: match.index + match[0].length,
        value: match[0],
        match: 'computed',
      })),
};
