import { actOnWishes } from '../act.js';
import { openForm, type Reader } from '../turn.js';
import { acceptedIn, isSmallTalk, wishesOf } from '../wishes.js';

const percent = (share: number): string => `${Math.round(share * 100)} %`;

/** Other intents than the open form's, or the first of a conversation, that the gate accepts. */
export const intentReader: Reader = {
  name: 'intent',
  read(turn) {
    const { matter, hearing } = turn;
    if (
      hearing.onlySteers &&
      hearing.clauses.every(({ steering }) => steering !== 'thanks' && steering !== 'greeting' && steering !== 'bye')
    )
      return null;
    const current = openForm(turn)?.open.intent ?? null;
    const wishes = wishesOf(turn).filter(({ intent }) => intent !== current);
    if (wishes.length > 1)
      return actOnWishes(turn, wishes, `accepted ${wishes.map(({ intent }) => intent).join(' and ')}`);
    const reading = hearing.onlySteers ? turn.recognition : matter;
    const accepted = acceptedIn(reading);
    if (accepted !== null && accepted !== current) {
      // Thanks and greetings do not break into a form.
      if (current !== null && isSmallTalk(turn, accepted)) return null;
      return actOnWishes(turn, [{ intent: accepted }], `accepted ${accepted} at ${percent(reading.confidence)}`);
    }
    const [only] = wishes;
    return only ? actOnWishes(turn, [only], `accepted ${only.intent} in a part of the message`) : null;
  },
};
