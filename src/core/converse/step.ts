import type { Recogniser } from '../recognise/recogniser.js';
import type { Recognition } from '../recognise/recognition.js';
import { commandReader } from './readers/commands.js';
import { confirmationReader } from './readers/confirmation.js';
import { actOnIntent, choiceReader, clarificationReader, intentReader } from './readers/intent.js';
import { missReader } from './readers/miss.js';
import { slotFillingReader } from './readers/slotFilling.js';
import { heldValues, type ConversationEvent, type ConversationState, type Step } from './state.js';
import { readTurn, type Reader, type Reply, type Turn } from './turn.js';

/** The order in which a turn is read; the first reader that makes something of it takes it. */
const READERS: readonly Reader[] = [
  commandReader,
  choiceReader,
  confirmationReader,
  slotFillingReader,
  intentReader,
  clarificationReader,
  missReader,
];

const nothingSaid = (text: string): Recognition => ({
  text,
  intent: null,
  confidence: 0,
  decision: 'none',
  candidates: [],
  ranking: [],
  slots: [],
  passedOver: [],
  entities: [],
  mendings: [],
});

function readText(turn: Turn): { reader: string; reply: Reply } {
  for (const reader of READERS) {
    const reply = reader.read(turn);
    if (reply) return { reader: reader.name, reply };
  }
  throw new Error('The last reader must take every turn.');
}

function readEvent(
  recogniser: Recogniser,
  state: ConversationState,
  event: ConversationEvent,
): { reader: string; reply: Reply; recognition: Recognition | null } {
  switch (event.type) {
    case 'text': {
      const recognition = recogniser.recognise(event.text, event.vectors, event.now);
      return { ...readText(readTurn(recogniser, state, recognition, event.vectors)), recognition };
    }
    case 'choice': {
      const turn = readTurn(recogniser, state, nothingSaid(''));
      if (!recogniser.document.intents.some((intent) => intent.name === event.intent)) {
        return { reader: 'no match', reply: missReader.read(turn)!, recognition: null };
      }
      const offered = state.choosing?.find((item) => item.intent === event.intent)?.values;
      return {
        reader: 'choice',
        reply: actOnIntent(turn, event.intent, `the customer chose ${event.intent}`, offered),
        recognition: null,
      };
    }
    case 'signal':
    case 'noInput': {
      const turn = readTurn(recogniser, state, nothingSaid(''));
      const what = event.type === 'noInput' ? 'nothing was said' : `a signal came in place of words: ${event.signal}`;
      return { reader: 'no match', reply: { ...missReader.read(turn)!, why: what }, recognition: null };
    }
    case 'hangUp': {
      const next: ConversationState = { ...state, outcome: state.open ? 'abandoned' : (state.outcome ?? 'abandoned') };
      return {
        reader: 'hang-up',
        reply: { state: next, says: [], acts: [], why: 'the customer left' },
        recognition: null,
      };
    }
  }
}

/**
 * Takes a conversation one turn further. Pure: the same bot, state and event give the same step, and the state
 * given is not changed.
 */
export function step(recogniser: Recogniser, state: ConversationState, event: ConversationEvent): Step {
  const { reader, reply, recognition } = readEvent(recogniser, state, event);
  const next: ConversationState = {
    ...reply.state,
    turns: state.turns + 1,
    lastSaid: reply.says.length > 0 ? reply.says : state.lastSaid,
  };
  return {
    state: next,
    says: reply.says,
    acts: reply.acts,
    trace: { reader, why: reply.why, recognition, before: heldValues(state), after: heldValues(next) },
  };
}
