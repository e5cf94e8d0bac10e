import { variants } from '../../bot/localised.js';
import { advance, askFor, countMiss, openForm, sayText, type Reader } from '../turn.js';

/** The last reader: nothing was understood. Asks again, and in the end hands over or gives up. */
export const missReader: Reader = {
  name: 'no match',
  read(turn) {
    const current = openForm(turn);
    const reply = countMiss(turn, (state) => {
      const slot = current?.form.slots.find((candidate) => candidate.name === current.open.asked);
      if (current && slot) return askFor(turn, state, slot);
      if (current) return advance(turn, state);
      const prompts = variants(turn.document.noMatch.prompts, turn.language);
      const written = prompts[Math.min(state.tries, prompts.length) - 1];
      return {
        state: { ...state, choosing: null },
        says: written === undefined ? [] : [sayText(turn, written, state)],
        acts: [],
      };
    });
    const what = current ? `no value for ${current.open.asked ?? 'the read-back'}` : 'no intent reached the ask level';
    return { ...reply, why: `${what}; try ${turn.state.tries + 1} of ${turn.document.noMatch.tries}` };
  },
};
