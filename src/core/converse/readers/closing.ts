import { chooseVariant } from '../../say/render.js';
import { sayOwn, type Reader } from '../turn.js';

/** A greeting; and "that is all", "ok", "bye" when nothing is open and something was done: the end of the conversation. */
export const closingReader: Reader = {
  name: 'closing',
  read(turn) {
    const { hearing, state } = turn;
    if (!hearing.onlySteers || state.open || state.choosing) return null;
    if (
      hearing.says('greeting') &&
      hearing.clauses.every(({ steering }) => steering === 'greeting' || steering === 'filler')
    ) {
      const greeting = chooseVariant(turn.document.greeting, turn.tag, 0);
      return { state, says: greeting === null ? [] : [{ text: greeting }], acts: [], why: 'the customer says hello' };
    }
    const ends =
      hearing.says('bye', 'nothing', 'leave') ||
      (state.outcome !== null &&
        hearing.says('thanks', 'ok', 'no', 'yes') &&
        !turn.language.naming.isVerb(hearing.folded.split(' ')[0]!));
    if (!ends) return null;
    return {
      state: { ...state, tries: 0 },
      says: sayOwn(turn, 'end'),
      acts: [],
      why: 'the customer wants nothing more',
    };
  },
};
