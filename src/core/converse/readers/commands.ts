import { customersName } from '../../bot/customersName.js';
import { findIntent, formOfIntent } from '../../bot/document.js';
import { actOnWishes } from '../act.js';
import { foldPhrase } from '../../text/foldPhrase.js';
import { codesOffered, codesPointedAt } from '../pointing.js';
import { startConversation, type ConversationState } from '../state.js';
import {
  askAgain,
  generalDesk,
  handOver,
  leave,
  openForm,
  sayOptions,
  sayOwn,
  type Reader,
  type Reply,
  type Turn,
} from '../turn.js';
import { acceptedIn, isSmallTalk, valuesFor } from '../wishes.js';

/** "Cancel it" in answer to "Shall I cancel your booking?" is a yes. */
export function doesWhatIsAsked({ state, hearing, document, language, tag }: Turn): boolean {
  if (state.open?.stage !== 'confirming' || hearing.says('no', 'keep')) return false;
  // What the form does is told by its read-back, and by the names of its intent.
  const { intent } = state.open;
  const names = [intent.replace(/[_-]/g, ' '), customersName(document, intent, tag)];
  const asked = new Set(
    [...state.lastSaid.map(({ text }) => text), ...names].flatMap((text) => foldPhrase(text).split(' ')),
  );
  const leaving = hearing.clauses.filter(({ steering }) => steering === 'leave');
  return (
    leaving.length > 0 &&
    leaving.every(({ folded }) => folded.split(' ').some((word) => language.clauses.endsIt(word) && asked.has(word)))
  );
}

/** "LM-20419" – "cancel it": of an order that was named, this is a request, where the bot can cancel orders. */
function cancelsWhatWasNamed(turn: Turn): Reply | null {
  const { hearing, language, state } = turn;
  const meant = acceptedIn(turn.recognition);
  if (state.choosing === null || openForm(turn) || meant === null || isSmallTalk(turn, meant)) return null;
  if (!hearing.onlySteers || !hearing.folded.split(' ').some((word) => language.clauses.endsIt(word))) return null;
  const form = formOfIntent(turn.document, meant);
  if (!form) return null;
  const offered = codesOffered(turn, form);
  const held = Object.keys(offered).length > 0 ? offered : codesPointedAt(turn, form);
  if (Object.keys(held).length === 0) return null;
  const free = { ...turn, state: { ...state, choosing: null, clarified: 0 } };
  return actOnWishes(free, [{ intent: meant, held, within: [] }], `the customer wants ${meant} of what was named`);
}

/** Leaves what is open; a wish in the same message is done at once ("forget it, I want to buy a chain instead"). */
function leaveForm(turn: Turn): Reply | null {
  const { hearing, state, matter } = turn;
  const current = openForm(turn);
  if (!hearing.says('leave') || (!current && state.choosing === null && state.offered === null)) return null;
  if (doesWhatIsAsked(turn)) return null;
  // "Leave it, it is right", said of what was read back.
  const readBack = current !== null && current.open.stage !== 'filling';
  if (readBack && hearing.onlySteers && hearing.says('yes') && !hearing.says('no')) return null;
  const other = hearing.onlySteers ? null : acceptedIn(matter);
  // "Scrap that, make it four": what follows goes on with the form.
  if (current && other === null && !hearing.onlySteers) {
    const { given } = valuesFor(turn, current.open.intent, { asked: current.open.asked, within: hearing.content });
    if (Object.keys(given).length > 0) return null;
  }
  const what = current ? current.form.name : 'what was asked';
  if (other !== null && !isSmallTalk(turn, other) && other !== current?.open.intent) {
    const left = leave({ ...turn, state: { ...state, parked: [] } });
    const next = actOnWishes(
      { ...turn, state: { ...left.state, offered: null } },
      [{ intent: other, within: hearing.content }],
      '',
      left.says,
    );
    return { ...next, acts: [...left.acts, ...next.acts], why: `the customer leaves ${what} for ${other}` };
  }
  return { ...leave(turn), why: `the customer wants to leave ${what}` };
}

function askForPerson(turn: Turn): Reply | null {
  const desk = generalDesk(turn.document);
  if (desk === undefined || !turn.hearing.says('person')) return null;
  const own = acceptedIn(turn.recognition);
  const asksMore = own !== null && formOfIntent(turn.document, own)?.slots.some((slot) => slot.required);
  if (!turn.state.open && asksMore) return null;
  const intentDesk = own === null ? undefined : findIntent(turn.document, own)?.desk;
  return { ...handOver(turn, turn.state, intentDesk ?? desk), why: 'the customer asks for a person' };
}

function help(turn: Turn): Reply | null {
  if (!turn.hearing.says('help') || !turn.hearing.onlySteers) return null;
  const own = sayOptions(turn);
  const next = askAgain(turn, turn.state);
  const again = turn.state.open || turn.state.choosing ? next.says : [];
  return { ...next, says: [...own, ...again], why: 'the customer asks what the bot can do' };
}

function repeat(turn: Turn): Reply | null {
  const { state, hearing } = turn;
  if (state.lastSaid.length === 0 || !hearing.says('repeat') || !hearing.onlySteers) return null;
  return { state, says: state.lastSaid, acts: [], why: 'the customer wants to hear it again' };
}

function startOver(turn: Turn): Reply | null {
  if (!turn.hearing.says('startOver') || !turn.hearing.onlySteers) return null;
  const { reference, turns, remembered, lastReference } = turn.state;
  const state: ConversationState = { ...startConversation(reference), turns, remembered, lastReference };
  return {
    state,
    says: sayOwn(turn, 'startOver'),
    acts: [{ act: 'cancel', form: turn.state.open?.form ?? null }],
    why: 'the customer wants to start over',
  };
}

/** Words that steer the conversation itself, where they stand apart: leave, a person, help, repeat, start over. */
export const commandReader: Reader = {
  name: 'command',
  read: (turn) =>
    askForPerson(turn) ?? cancelsWhatWasNamed(turn) ?? leaveForm(turn) ?? startOver(turn) ?? repeat(turn) ?? help(turn),
};
