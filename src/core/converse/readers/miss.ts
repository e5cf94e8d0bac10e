import { clarifyOf } from '../../bot/document.js';
import { wordingForTry } from '../../say/render.js';
import type { ConversationState } from '../state.js';
import {
  askAgain,
  countMiss,
  generalDesk,
  giveUp,
  handOver,
  leave,
  mostTries,
  openForm,
  sayClarification,
  sayOptions,
  sayOwn,
  sayText,
  type Doing,
  type Reader,
  type Reply,
  type Turn,
} from '../turn.js';
import { isOfferedTo } from '../wishes.js';

/** Where help is sought when a message belongs to no intent, by the order that is set. */
function seekHelp(turn: Turn, state: ConversationState): Doing {
  const { noMatch } = turn.document;
  const asked = { ...state, choosing: null };
  const written = wordingForTry(noMatch.prompts, turn.tag, state.tries - 1);
  const says = written === null ? [] : [sayText(turn, written, asked)];
  switch (noMatch.order?.[state.tries - 1] ?? 'reword') {
    case 'reword':
      return { state: asked, says, acts: [] };
    case 'nearest': {
      const near = turn.matter.ranking
        .map(({ intent }) => intent)
        .filter((name) => isOfferedTo(turn, name))
        .slice(0, clarifyOf(turn.document.gate).most);
      if (near.length === 0) return { state: asked, says, acts: [] };
      const choosing = near.map((intent) => ({ intent, values: {} }));
      return { state: { ...asked, choosing }, says: [...says, ...sayClarification(turn, near)], acts: [] };
    }
    case 'options':
      return { state: asked, says: [...says, ...sayOptions(turn)], acts: [] };
    case 'desk': {
      const desk = generalDesk(turn.document);
      return desk === undefined ? giveUp(turn, asked) : handOver(turn, asked, desk);
    }
    case 'end':
      return giveUp(turn, asked);
  }
}

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
      return seekHelp(turn, state);
    });
    const what = current ? `no value for ${current.open.asked ?? 'the read-back'}` : 'no intent reached the ask level';
    return { ...reply, why: `${what}; try ${turn.state.tries + 1} of ${mostTries(turn)}` };
  },
};

/** Nothing was said: the bot's words for silence, and what it waits for; after the last time it gives up. */
export function onSilence(turn: Turn): Reply {
  const silences = turn.state.silences + 1;
  const state = { ...turn.state, silences };
  const { noMatch } = turn.document;
  const most = noMatch.silences ?? noMatch.tries;
  const why = `nothing was said; time ${silences} of ${most}`;
  if (silences >= most) return { ...giveUp(turn, state), why };
  const next = askAgain(turn, state);
  const again = state.open ? next.says : [];
  return { ...next, says: [...sayOwn(turn, 'silence', {}, silences - 1), ...again], why };
}
