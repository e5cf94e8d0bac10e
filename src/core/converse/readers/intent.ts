import { findIntent, formOfIntent } from '../../bot/document.js';
import { gatherValues } from '../../recognise/slots.js';
import { chooseVariant } from '../render.js';
import type { SlotValue } from '../../recognise/value.js';
import { foldPhrase, saysNo, saysYes } from '../phrases.js';
import { missReader } from './miss.js';
import type { ConversationState, OfferedIntent, OpenForm, Say } from '../state.js';
import {
  advance,
  complete,
  handOver,
  intentLabel,
  nextSlot,
  resume,
  sayText,
  setValues,
  type Reader,
  type Reply,
  type Turn,
} from '../turn.js';

/** What the turn's message gives to the form of an intent. */
function valuesFor(turn: Turn, intent: string): Record<string, SlotValue> {
  const form = formOfIntent(turn.document, intent);
  return form
    ? gatherValues(turn.document, form, turn.recogniser.readSlots(intent, turn.recognition, turn.vectors, null))
    : {};
}

/**
 * Acts on an intent: says its reply, opens its form, or hands it to its desk. A form that is open is put aside.
 * @param held values for the form from an earlier message
 */
export function actOnIntent(turn: Turn, name: string, why: string, held: Record<string, SlotValue> = {}): Reply {
  const intent = findIntent(turn.document, name)!;
  const form = formOfIntent(turn.document, name);
  const aside = turn.state.open;
  const state: ConversationState = {
    ...turn.state,
    open: null,
    parked: aside ? [...turn.state.parked, aside] : turn.state.parked,
    choosing: null,
    tries: 0,
    outcome: null,
  };
  const reply = chooseVariant(intent.reply, turn.language, state.turns);
  const says: Say[] = reply === null ? [] : [sayText(turn, reply, state)];
  if (!form) {
    if (intent.desk !== undefined) {
      const handed = handOver(turn, state, intent.desk);
      return { ...handed, says: [...says, ...handed.says], why };
    }
    const answer =
      says.length > 0
        ? says
        : [{ text: `This is about something I have no answer for yet (${intentLabel(turn.document, name)}).` }];
    return { ...resume(turn, { ...state, outcome: 'completed' }, answer, []), why };
  }
  const opened: OpenForm = { intent: name, form: form.name, values: {}, asked: null, stage: 'filling' };
  const set = setValues({ ...state, open: opened }, opened, { ...held, ...valuesFor(turn, name) });
  const asksNothing = aside !== null && nextSlot(form, set.state.open!.values) === undefined;
  const next = asksNothing ? complete(turn, set.state) : advance(turn, set.state);
  return {
    ...next,
    says: [...says, ...next.says],
    acts: [{ act: 'openForm', form: form.name, intent: name }, ...set.acts, ...next.acts],
    why,
  };
}

function percent(share: number): string {
  return `${Math.round(share * 100)} %`;
}

/** Another intent than the open form's, or the first of a conversation, that the gate accepts. */
export const intentReader: Reader = {
  name: 'intent',
  read(turn) {
    const { recognition, state } = turn;
    if (recognition.decision !== 'accept' || recognition.intent === null) return null;
    if (state.open?.intent === recognition.intent) return null;
    return actOnIntent(
      turn,
      recognition.intent,
      `accepted ${recognition.intent} at ${percent(recognition.confidence)}`,
    );
  },
};

/** An intent the gate is not sure of, when no form is open: asks which of those in reach is meant. */
export const clarificationReader: Reader = {
  name: 'clarification',
  read(turn) {
    const { recognition, state } = turn;
    if (recognition.decision !== 'ask' || state.open || state.choosing !== null) return null;
    const choices = recognition.candidates.map((intent) => ({ intent, label: intentLabel(turn.document, intent) }));
    const names = new Intl.ListFormat('en', { type: 'disjunction' }).format(
      choices.map((choice) => `“${choice.label}”`),
    );
    const text = choices.length > 1 ? `Which do you mean: ${names}?` : `Do you mean ${names}?`;
    return {
      state: {
        ...state,
        choosing: recognition.candidates.map((intent) => ({ intent, values: valuesFor(turn, intent) })),
        outcome: null,
      },
      says: [{ text, choices }],
      acts: [],
      why: `unsure between ${recognition.candidates.join(', ')} (best ${percent(recognition.confidence)})`,
    };
  },
};

const PLACES = [/\b(?:first|1st|1|former|one)\b/, /\b(?:second|2nd|2|latter|two)\b/, /\b(?:third|3rd|3|last|three)\b/];

function chosenBy(turn: Turn, offered: readonly OfferedIntent[]): OfferedIntent | undefined {
  const { recognition, folded, document } = turn;
  const byName = offered.find(({ intent }) =>
    [intentLabel(document, intent), intent.replace(/[_-]/g, ' ')].some((name) => foldPhrase(name) === folded),
  );
  if (byName) return byName;
  const byPlace = folded.split(' ').length <= 4 ? offered.find((_, index) => PLACES[index]?.test(folded)) : undefined;
  if (byPlace && Object.keys(valuesFor(turn, byPlace.intent)).length === 0) return byPlace;
  if (offered.length === 1 && saysYes(folded)) return offered[0];
  if (saysNo(folded) && folded.split(' ').length <= 4) return undefined;
  const best = recognition.ranking[0];
  if (best && best.confidence >= document.gate.ask) return offered.find(({ intent }) => intent === best.intent);
  return offered.find(({ intent }) => Object.keys(valuesFor(turn, intent)).length > 0);
}

/** The answer to "which do you mean": a name, a place in the list, other words for it, or simply its details. */
export const choiceReader: Reader = {
  name: 'choice',
  read(turn) {
    const { choosing } = turn.state;
    if (choosing === null) return null;
    const chosen = chosenBy(turn, choosing);
    if (!chosen && saysNo(turn.folded)) {
      return {
        ...missReader.read({ ...turn, state: { ...turn.state, choosing: null } })!,
        why: 'the customer means none of those offered',
      };
    }
    return chosen ? actOnIntent(turn, chosen.intent, `the customer chose ${chosen.intent}`, chosen.values) : null;
  },
};
