import { formOfIntent } from '../../bot/document.js';
import { wantsHelp, wantsOut, wantsPerson, wantsRepeat, wantsStartOver } from '../phrases.js';
import type { ConversationState } from '../state.js';
import { handOver, intentLabel, openForm, resume, type Reader, type Reply, type Turn } from '../turn.js';

function leaveForm(turn: Turn): Reply | null {
  const current = openForm(turn);
  if (!current || !wantsOut(turn.folded)) return null;
  const { recognition } = turn;
  const aboutAnotherOrder =
    recognition.decision === 'accept' &&
    recognition.intent !== current.open.intent &&
    recognition.slots.some(
      (slot) => turn.recogniser.document.entities.find((entity) => entity.name === slot.entity)?.kind === 'pattern',
    );
  if (aboutAnotherOrder) return null;
  const state: ConversationState = {
    ...turn.state,
    open: null,
    last: current.open,
    choosing: null,
    tries: 0,
    outcome: 'cancelled',
  };
  const resumed = resume(
    turn,
    state,
    [{ text: 'All right, I have left that.' }],
    [{ act: 'cancel', form: current.form.name }],
  );
  return { ...resumed, why: `the customer wants to leave ${current.form.name}` };
}

function askForPerson(turn: Turn): Reply | null {
  const desk = turn.document.noMatch.desk ?? turn.document.desks[0]?.name;
  if (desk === undefined || !wantsPerson(turn.folded)) return null;
  const { recognition } = turn;
  const ownForm =
    recognition.decision === 'accept' && recognition.intent
      ? formOfIntent(turn.document, recognition.intent)
      : undefined;
  if (!turn.state.open && ownForm?.slots.some((slot) => slot.required)) return null;
  return { ...handOver(turn, turn.state, desk), why: 'the customer asks for a person' };
}

function help(turn: Turn): Reply | null {
  if (!wantsHelp(turn.folded)) return null;
  const labels = turn.document.intents.slice(0, 5).map((intent) => intentLabel(turn.document, intent.name));
  const text =
    labels.length > 0
      ? `I can help when someone ${new Intl.ListFormat('en', { type: 'disjunction' }).format(labels)}.`
      : 'I cannot do anything yet.';
  return {
    state: turn.state,
    says: [{ text }, ...turn.state.lastSaid.slice(-1)],
    acts: [],
    why: 'the customer asks what the bot can do',
  };
}

function repeat(turn: Turn): Reply | null {
  if (turn.state.lastSaid.length === 0 || !wantsRepeat(turn.folded)) return null;
  return { state: turn.state, says: turn.state.lastSaid, acts: [], why: 'the customer wants to hear it again' };
}

function startOver(turn: Turn): Reply | null {
  if (!wantsStartOver(turn.folded)) return null;
  const state: ConversationState = {
    ...turn.state,
    open: null,
    parked: [],
    last: null,
    choosing: null,
    tries: 0,
    outcome: null,
  };
  return {
    state,
    says: [{ text: 'Let us start again. What would you like to do?' }],
    acts: [{ act: 'cancel', form: turn.state.open?.form ?? null }],
    why: 'the customer wants to start over',
  };
}

/** Words that steer the conversation itself: leave, a person, help, repeat, start over. */
export const commandReader: Reader = {
  name: 'command',
  read: (turn) => askForPerson(turn) ?? leaveForm(turn) ?? startOver(turn) ?? repeat(turn) ?? help(turn),
};
