import { actOnIntent } from '../act.js';
import { goOn, sayOwn, type Reader } from '../turn.js';

/** The answer to "you also wanted to …": yes does it, no lets it be; anything else is read as it stands. */
export const offerReader: Reader = {
  name: 'offer',
  read(turn) {
    const { offered } = turn.state;
    if (offered === null) return null;
    const { hearing } = turn;
    const state = { ...turn.state, offered: null };
    if (hearing.says('yes', 'ok') && !hearing.says('no') && !hearing.content.some(({ question }) => question)) {
      const next = actOnIntent({ ...turn, state }, { intent: offered.intent, held: offered.values, within: hearing.content });
      return { ...next, why: `the customer goes on with ${offered.intent}` };
    }
    if (hearing.onlySteers && hearing.says('no', 'keep', 'nothing', 'neither')) {
      return { ...goOn(turn, state, sayOwn(turn, 'left'), []), why: `the customer does not want ${offered.intent}` };
    }
    return null;
  },
};
