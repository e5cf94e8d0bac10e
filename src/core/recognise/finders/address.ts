import type { Finder, Found } from './finder.js';

const STREET_WORDS =
  'street|st|road|rd|lane|ln|avenue|ave|close|drive|dr|court|ct|way|place|pl|row|terrace|square|crescent|gardens|hill|walk|yard|mews|grove|green|park|parade|wharf|quay|rise|boulevard|blvd';

/** A number, one to four words, and a word for a street. */
const STREET = new RegExp(
  `(?<![\\p{L}\\p{N}])(?:flat \\d+[a-z]?,? )?\\d{1,5}[a-z]? (?:[\\p{L}'’.-]+ ){1,4}?(?:${STREET_WORDS})(?![\\p{L}])`,
  'giu',
);

/** A town after a street: words in capitals, or any one word after a comma that ends the sentence. */
const TOWN = /^(?:,? [\p{Lu}][\p{L}'’-]+(?: [\p{Lu}][\p{L}'’-]+){0,2}|, [\p{L}'’-]+(?=[\s.!?]*$))/u;
const POSTCODE = /^,? (?:[A-Z]{1,2}\d[A-Z\d]? ?\d[A-Z]{2}|\d{5}(?:-\d{4})?)(?![\p{L}\p{N}])/iu;

/** The end of an address whose street ends here. */
function extend(text: string, end: number): number {
  const postcode = (at: number) => POSTCODE.exec(text.slice(at))?.[0].length ?? 0;
  const direct = postcode(end);
  if (direct > 0) return end + direct;
  const town = end + (TOWN.exec(text.slice(end))?.[0].length ?? 0);
  return town + postcode(town);
}

/** Street addresses: a number, a street, and the town and postcode if they follow. The value is the text. */
export const addressFinder: Finder = {
  kinds: ['address'],
  prepare:
    () =>
    ({ text }) =>
      [...text.matchAll(STREET)].map((match): Found => {
        const end = extend(text, match.index + match[0].length);
        return { start: match.index, end, value: text.slice(match.index, end), match: 'computed' };
      }),
};
