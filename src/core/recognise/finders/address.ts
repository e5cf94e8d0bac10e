import { tidy } from '../../text/tokens.js';
import type { Finder, Found } from './finder.js';

/** Addresses: a house and street or a named building, with the town and postcode that follow. The value is the text. */
export const addressFinder: Finder = {
  kinds: ['address'],
  prepare:
    (_, { language }) =>
    (read) => {
      const found: Found[] = [];
      let from = 0;
      for (let at = 0; at < read.tokens.length; at++) {
        if (read.tokens[at]!.start < from) continue;
        const address = language.addressAt(read, at);
        if (!address) continue;
        found.push({ ...address, value: tidy(read.text.slice(address.start, address.end)), match: 'computed' });
        from = address.end;
      }
      return found;
    },
};
