import type { Vectors } from '../encode/encoder.js';
import type { Recogniser } from '../recognise/open.js';
import { sameValue, type SlotValue, type Values } from '../recognise/value.js';
import {
  finalOutcome,
  heldValues,
  startConversation,
  type ConversationEvent,
  type Outcome,
  type Say,
  type Step,
} from './state.js';
import { step } from './step.js';
import { entriesOf, heldOf, type Named } from '../text/named.js';

/** A turn of a walkthrough: what comes in, and words the bot must say in answer. */
export interface WalkthroughTurn {
  user?: string;
  signal?: string;
  noInput?: boolean;
  /** The desk that took over gives the conversation back. */
  handBack?: boolean;
  /** Must be part of what the bot says. */
  say?: string;
}

/** A written conversation with the outcome it must reach. */
export interface Walkthrough {
  name: string;
  now?: string;
  turns: WalkthroughTurn[];
  expect: { outcome?: Outcome; slots?: Named<SlotValue | null> };
}

export interface TranscriptLine {
  from: 'user' | 'bot';
  text: string;
}

export interface WalkthroughResult {
  name: string;
  outcome: Outcome;
  slots: Values;
  passed: boolean;
  /** Why it did not pass, in sentences. */
  faults: string[];
  transcript: TranscriptLine[];
}

function eventOf(turn: WalkthroughTurn, vectors: Vectors, now: string): ConversationEvent {
  if (turn.noInput) return { type: 'noInput' };
  if (turn.handBack) return { type: 'handBack' };
  if (turn.signal !== undefined) return { type: 'signal', signal: turn.signal };
  return { type: 'text', text: turn.user ?? '', vectors, now };
}

function wordsOf({ user, noInput, handBack, signal }: WalkthroughTurn): string {
  return user ?? (noInput ? '(nothing)' : handBack ? '(handed back)' : `(${signal ?? ''})`);
}

function checkSays(turn: WalkthroughTurn, index: number, says: readonly Say[]): string[] {
  const said = says.map((say) => say.text).join(' ');
  if (turn.say === undefined || said.toLowerCase().includes(turn.say.toLowerCase())) return [];
  return [`turn ${index + 1}: the bot said “${said}”, not “${turn.say}”`];
}

/**
 * Runs a walkthrough.
 * @param vectors of the texts that the recogniser asks for to read the turns
 * @param now where the walkthrough names no time of its own
 */
export function runWalkthrough(
  recogniser: Recogniser,
  walkthrough: Walkthrough,
  vectors: Vectors,
  now: string,
): WalkthroughResult {
  let state = startConversation('1');
  const faults: string[] = [];
  const transcript: TranscriptLine[] = [];
  for (const [index, turn] of walkthrough.turns.entries()) {
    const result: Step = step(recogniser, state, eventOf(turn, vectors, walkthrough.now ?? now));
    state = result.state;
    transcript.push({ from: 'user', text: wordsOf(turn) });
    for (const say of result.says) transcript.push({ from: 'bot', text: say.text });
    faults.push(...checkSays(turn, index, result.says));
  }
  const outcome = finalOutcome(state);
  const slots = heldValues(state);
  const { expect } = walkthrough;
  if (expect.outcome !== undefined && expect.outcome !== outcome) {
    faults.push(`it ended ${outcome.replace('_', ' ')}, not ${expect.outcome.replace('_', ' ')}`);
  }
  for (const [slot, value] of entriesOf(expect.slots ?? {})) {
    if (value === null ? heldOf(slots, slot) === undefined : sameValue(heldOf(slots, slot), value)) continue;
    faults.push(`${slot} is ${JSON.stringify(heldOf(slots, slot) ?? null)}, not ${JSON.stringify(value)}`);
  }
  return { name: walkthrough.name, outcome, slots, passed: faults.length === 0, faults, transcript };
}
