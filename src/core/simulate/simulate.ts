import type { PersonSaid } from '../contract/try.js';
import { startConversation, type Act, type ConversationState, type Say } from '../converse/state.js';
import { takeTurn } from '../converse/takeTurn.js';
import type { WalkthroughTurn } from '../converse/walkthrough.js';
import { languageOf } from '../language/index.js';
import { seeded } from '../measure/significance.js';
import type { Random } from '../noise/noise.js';
import type { Encode } from '../recognise/answer.js';
import type { Recogniser } from '../recognise/open.js';
import type { Values } from '../recognise/value.js';
import { Customer, wrongSlots } from './customer.js';
import { goalIntents, makeGoal } from './goal.js';
import { TEMPERS, type Temper } from './tempers.js';

/** How a simulated conversation ended. */
export type SimulatedEnd =
  /** The form is complete and holds what was wanted. */
  | 'completed'
  /** The form is complete and holds something else. */
  | 'completed wrongly'
  /** Another form was completed. */
  | 'another form'
  | 'handed over'
  | 'cancelled'
  /** The bot gave up: too many tries failed, or nothing was said too often. */
  | 'given up'
  /** The customer has no other words for what it wants. */
  | 'not understood'
  /** The bot asks for the same thing again and again, or the conversation has no end. */
  | 'stuck';

/** A conversation with a simulated customer. */
export interface SimulatedConversation {
  /** Its number in the trial; with the seed of this it comes about again. */
  number: number;
  temper: string;
  intent: string;
  form: string;
  end: SimulatedEnd;
  /** What the bot asked for last, where it did not get to the end: a slot, or a sentence about it. */
  at: string | null;
  /** Slots that hold something else than what was wanted. */
  wrong: string[];
  /** Messages of the customer. */
  turns: number;
  /** What the customer did, with what the bot said to it. */
  transcript: (WalkthroughTurn & { says: string[] })[];
  slots: Values;
}

/** A conversation that is as long goes on for ever. */
const MOST_TURNS = 40;
/** The same thing asked so often in a row is asked in a circle. */
const CIRCLE = 4;

/** What the bot waits for: a slot, or what it is to be told. */
function waitsFor({ open, choosing }: ConversationState): string {
  if (choosing) return 'clarification';
  if (!open) return 'a request';
  if (open.stage === 'confirming') return 'read-back';
  if (open.stage === 'changing') return 'what to change';
  return open.asked ?? 'a slot';
}

const turnOf = (said: PersonSaid): WalkthroughTurn =>
  said.type === 'text' ? { user: said.text } : said.type === 'noInput' ? { noInput: true } : {};

/** How the conversation has ended; `null` while it goes on. */
function endOf(state: ConversationState, acts: readonly Act[], { goal }: Customer): SimulatedEnd | null {
  const done = acts.find((act) => act.act === 'complete');
  // A form that is complete may be handed to a desk.
  if (done?.form === goal.form) return wrongSlots(done.values, goal).length > 0 ? 'completed wrongly' : 'completed';
  if (done) return 'another form';
  if (state.desk !== null) return 'handed over';
  if (state.open || state.choosing) return null;
  if (state.outcome === 'abandoned') return 'given up';
  return state.outcome === 'cancelled' ? 'cancelled' : null;
}

/** Has a customer talk with the bot. @param now local ISO time that relative dates are reckoned from */
async function talk(
  recogniser: Recogniser,
  customer: Customer,
  { encode, now }: { encode: Encode; now: string },
): Promise<Pick<SimulatedConversation, 'end' | 'at' | 'wrong' | 'turns' | 'transcript' | 'slots'>> {
  let state = startConversation('40001');
  let says: readonly Say[] = [];
  let [last, again] = ['', 0];
  const transcript: SimulatedConversation['transcript'] = [];
  const ended = (end: SimulatedEnd) => {
    const { values = {} } = state.open ?? state.last ?? {};
    return {
      end,
      at: end === 'completed' || end === 'completed wrongly' ? null : last || null,
      wrong: wrongSlots(values, customer.goal),
      turns: transcript.filter(({ user }) => user !== undefined).length,
      transcript,
      slots: values,
    };
  };
  while (transcript.length < MOST_TURNS) {
    const said = customer.next(state, says);
    if (!said) return ended('not understood');
    const result = await takeTurn(recogniser, state, said, { now, encode });
    ({ state, says } = result);
    transcript.push({ ...turnOf(said), says: says.map(({ text }) => text) });
    const end = endOf(state, result.acts, customer);
    if (end) return ended(end);
    const waits = waitsFor(state);
    again = waits === last && said.type === 'text' ? again + 1 : 1;
    last = waits;
    if (again > CIRCLE) return ended('stuck');
  }
  return ended('stuck');
}

/**
 * A conversation of a trial: intents that open a form and tempers take turns, and all else follows from the seed.
 * `null` for a bot that has no form to come for.
 * @param number of the conversation, from 0
 */
export async function simulate(
  recogniser: Recogniser,
  number: number,
  { seed, encode, now, tempers = TEMPERS }: { seed: number; encode: Encode; now: string; tempers?: readonly Temper[] },
): Promise<SimulatedConversation | null> {
  const { document } = recogniser;
  const intents = goalIntents(document);
  if (intents.length === 0) return null;
  const language = languageOf(document);
  const random: Random = seeded(seed * 1_000_003 + number);
  const temper = tempers[number % tempers.length]!;
  const intent = intents[Math.floor(number / tempers.length) % intents.length]!;
  const goal = makeGoal(document, intent, random, language);
  const customer = new Customer(goal, temper, { document, language, random });
  const told = await talk(recogniser, customer, { encode, now });
  return { number, temper: temper.name, intent: intent.name, form: goal.form, ...told };
}
