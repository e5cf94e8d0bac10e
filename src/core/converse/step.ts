import type { Recogniser } from '../recognise/open.js';
import type { Recognition } from '../recognise/recognition.js';
import { actOnIntent } from './act.js';
import { afterHandoverReader } from './readers/afterHandover.js';
import { choiceReader, clarificationReader } from './readers/clarification.js';
import { closingReader } from './readers/closing.js';
import { commandReader } from './readers/commands.js';
import { confirmationReader } from './readers/confirmation.js';
import { intentReader } from './readers/intent.js';
import { missReader, onSilence } from './readers/miss.js';
import { offerReader } from './readers/offer.js';
import { slotFillingReader } from './readers/slotFilling.js';
import { whichReader } from './readers/which.js';
import { heldValues, type ConversationEvent, type ConversationState, type Step } from './state.js';
import { readTurn, type Reader, type Reply, type Turn } from './turn.js';

/** The order in which a turn is read; the first reader that makes something of it takes it. */
const READERS: readonly Reader[] = [
  afterHandoverReader,
  commandReader,
  offerReader,
  choiceReader,
  whichReader,
  confirmationReader,
  slotFillingReader,
  intentReader,
  clarificationReader,
  closingReader,
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
  overlapped: [],
  failed: [],
  mendings: [],
});

interface Heard {
  reader: string;
  reply: Reply;
  recognition: Recognition | null;
}

function readText(turn: Turn): { reader: string; reply: Reply } {
  for (const reader of READERS) {
    const reply = reader.read(turn);
    if (reply) return { reader: reader.name, reply };
  }
  throw new Error('The last reader must take every turn.');
}

/** A choice that was pressed. */
function readChoice(turn: Turn, name: string): Heard {
  const handed = afterHandoverReader.read(turn);
  if (handed) return { reader: afterHandoverReader.name, reply: handed, recognition: null };
  if (!turn.document.intents.some((intent) => intent.name === name)) {
    return { reader: missReader.name, reply: missReader.read(turn)!, recognition: null };
  }
  const held = turn.state.choosing?.find((item) => item.intent === name)?.values ?? {};
  const acted = actOnIntent(turn, { intent: name, held, within: [] });
  return { reader: choiceReader.name, reply: { ...acted, why: `the customer chose ${name}` }, recognition: null };
}

function readEvent(recogniser: Recogniser, state: ConversationState, event: ConversationEvent): Heard {
  if (event.type === 'text') {
    const recognition = recogniser.recognise(event.text, event.vectors, event.now);
    return { ...readText(readTurn(recogniser, state, recognition, event)), recognition };
  }
  const turn = readTurn(recogniser, state, nothingSaid(''));
  const handed = event.type === 'signal' || event.type === 'noInput' ? afterHandoverReader.read(turn) : null;
  if (handed) return { reader: afterHandoverReader.name, reply: handed, recognition: null };
  switch (event.type) {
    case 'choice':
      return readChoice(turn, event.intent);
    case 'signal': {
      const why = `a signal came in place of words: ${event.signal}`;
      return { reader: missReader.name, reply: { ...missReader.read(turn)!, why }, recognition: null };
    }
    case 'noInput':
      return { reader: 'silence', reply: onSilence(turn), recognition: null };
    case 'handBack': {
      const next: ConversationState = { ...state, desk: null, toldOfDesk: false, outcome: null };
      const acts = state.desk === null ? [] : [{ act: 'handBack' as const, desk: state.desk }];
      return {
        reader: 'desk',
        reply: { state: next, says: [], acts, why: 'the desk hands the conversation back' },
        recognition: null,
      };
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
    silences: event.type === 'noInput' ? reply.state.silences : 0,
    // What was understood begins anew.
    clarified: reply.state.open !== null || reader === 'intent' ? 0 : reply.state.clarified,
    lastSaid: reply.says.length > 0 ? reply.says : state.lastSaid,
  };
  return {
    state: next,
    says: reply.says,
    acts: reply.acts,
    trace: { reader, why: reply.why, recognition, before: heldValues(state), after: heldValues(next) },
  };
}
