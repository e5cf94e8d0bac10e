import { actOnWishes } from '../act.js';
import { onlyReplies, openForm, type Reader, type Turn } from '../turn.js';
import { acceptedIn, isSmallTalk, saysOnlyValues, wishesOf, type Wish } from '../wishes.js';

const percent = (share: number): string => `${Math.round(share * 100)} %`;

/** Questions beside a request, which are answered at once: "a pitch for Friday, and can I bring my dog". */
function questionsBeside(turn: Turn, request: string): Wish[] {
  return turn.parts.flatMap((part): Wish[] => {
    const intent = acceptedIn(part.recognition);
    const asks = intent !== null && intent !== request && (part.question || part.request);
    return asks && onlyReplies(turn.document, intent) && !isSmallTalk(turn, intent) ? [{ intent, within: [part] }] : [];
  });
}

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
    // A value alone asks for nothing else than what is open.
    if (current !== null && saysOnlyValues(turn)) return null;
    const wishes = wishesOf(turn).filter(({ intent }) => intent !== current);
    if (wishes.length > 1)
      return actOnWishes(turn, wishes, `accepted ${wishes.map(({ intent }) => intent).join(' and ')}`);
    const reading = hearing.onlySteers ? turn.recognition : matter;
    const accepted = acceptedIn(reading);
    if (accepted !== null && accepted !== current) {
      // Thanks and greetings do not break into a form.
      if (current !== null && isSmallTalk(turn, accepted)) return null;
      const beside = onlyReplies(turn.document, accepted) ? [] : questionsBeside(turn, accepted);
      if (beside.length > 0) {
        const own = turn.parts.filter(({ start }) => beside.every(({ within }) => within[0]!.start !== start));
        const wanted = [{ intent: accepted, within: own }, ...beside];
        return actOnWishes(turn, wanted, `accepted ${wanted.map(({ intent }) => intent).join(' and ')}`);
      }
      return actOnWishes(turn, [{ intent: accepted }], `accepted ${accepted} at ${percent(reading.confidence)}`);
    }
    const [only] = wishes;
    return only ? actOnWishes(turn, [only], `accepted ${only.intent} in a part of the message`) : null;
  },
};
