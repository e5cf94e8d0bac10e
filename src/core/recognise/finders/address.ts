import { tidy } from '../../text/tokens.js';
import type { Finder, Found } from './finder.js';

/** Addresses: a house and street or a named building, with the town and postcode that follow. The value is the text. */
export const addressFinder: Finder = {
  kinds: ['address'],
  prepare:
    (_, { language }) =>
    (message) => {
      const found: Found[] = [];
      let from = 0;
      for (let at = 0; at < message.tokens.length; at++) {
        if (message.tokens[at]!.start < from) continue;
        const address = language.addressAt(message, at);
        if (!address) continue;
        found.push({ ...address, value: tidy(message.text.slice(address.start, address.end)), match: 'computed' });
        from = address.end;
      }
      return found;
    },
};
