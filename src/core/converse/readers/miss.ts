import { wordingForTry } from '../../say/render.js';
import {
  askAgain,
  countMiss,
  giveUp,
  leave,
  openForm,
  sayOwn,
  sayText,
  type Reader,
  type Reply,
  type Turn,
} from '../turn.js';

/** The last reader: nothing was understood. Asks again, and in the end hands over or gives up. */
export const missReader: Reader = {
  name: 'no match',
  read(turn) {
    const current = openForm(turn);
    const { hearing } = turn;
    // A form waits through thanks and greetings.
    if (
      current &&
      hearing.onlySteers &&
      hearing.says('thanks', 'greeting', 'ok', 'wait') &&
      !hearing.says('unknown', 'refusal', 'indifferent')
    ) {
      return { ...askAgain(turn, turn.state), why: 'that asks for nothing; the form goes on' };
    }
    if (current?.open.stage === 'filling' && hearing.onlySteers && hearing.says('nothing', 'keep', 'neither')) {
      return { ...leave(turn), why: 'the customer wants nothing of it' };
    }
    const reply = countMiss(turn, (state) => {
      if (current) {
        const next = askAgain(turn, state);
        const unwilling = hearing.says('refusal', 'unknown', 'indifferent') && current.open.stage === 'filling';
        const remark = unwilling
          ? sayOwn(turn, 'needed', { slot: current.open.asked ?? '' })
          : sayOwn(turn, 'notUnderstood');
        return { ...next, says: [...remark, ...next.says] };
      }
      const written = wordingForTry(turn.document.noMatch.prompts, turn.tag, state.tries - 1);
      return {
        state: { ...state, choosing: null },
        says: written === null ? [] : [sayText(turn, written, state)],
        acts: [],
      };
    });
    const what = current ? `no value for ${current.open.asked ?? 'the read-back'}` : 'no intent reached the ask level';
    return { ...reply, why: `${what}; try ${turn.state.tries + 1} of ${turn.document.noMatch.tries}` };
  },
};

/** Nothing was said: the bot's words for silence, and what it waits for; after the last time it gives up. */
export function onSilence(turn: Turn): Reply {
  const silences = turn.state.silences + 1;
  const state = { ...turn.state, silences };
  const why = `nothing was said; time ${silences} of ${turn.document.noMatch.tries}`;
  if (silences >= turn.document.noMatch.tries) return { ...giveUp(turn, state), why };
  const next = askAgain(turn, state);
  const again = state.open ? next.says : [];
  return { ...next, says: [...sayOwn(turn, 'silence', {}, silences - 1), ...again], why };
}
