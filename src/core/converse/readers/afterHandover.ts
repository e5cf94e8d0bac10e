import { sayOwn, type Reader } from '../turn.js';

/** A desk has the conversation: the bot says so once, and is silent until it is handed back. */
export const afterHandoverReader: Reader = {
  name: 'desk',
  read(turn) {
    const { desk, toldOfDesk, outcome } = turn.state;
    if (desk === null || outcome !== 'handed_off') return null;
    const says = toldOfDesk ? [] : sayOwn(turn, 'handedOver');
    return { state: { ...turn.state, toldOfDesk: true }, says, acts: [], why: `the conversation is with ${desk}` };
  },
};
