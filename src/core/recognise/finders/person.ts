import { tidy } from '../../text/tokens.js';
import type { Finder, Found } from './finder.js';

/** People by a title or by what is said before a name. The value is the text. */
export const personFinder: Finder = {
  kinds: ['person'],
  prepare:
    (_, { language }) =>
    (text) => {
      const { tokens } = text;
      const found: Found[] = [];
      for (let at = 0; at < tokens.length; at++) {
        const next = language.personAt(text, at);
        if (next < 0) continue;
        const [first, last] = [tokens[at]!, tokens[next - 1]!];
        found.push({
          start: first.start,
          end: last.end,
          value: tidy(text.text.slice(first.start, last.end)),
          match: 'computed',
        });
        at = next - 1;
      }
      return found;
    },
};
