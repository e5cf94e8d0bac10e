import { NO_VECTORS } from '../encode/encoder.js';
import { findEntity, type BotDocument, type Form } from '../bot/document.js';
import { exampleAnswer } from '../bot/examples.js';
import { languageOf } from '../language/index.js';
import type { Encode } from '../recognise/answer.js';
import type { Recogniser } from '../recognise/open.js';
import { startConversation, type ConversationEvent, type ConversationState, type Step } from './state.js';
import { step } from './step.js';
import { takeTurn } from './takeTurn.js';
import type { TranscriptLine } from './walkthrough.js';

/** The most turns that are written out; a form that goes on longer asks in circles. */
const MOST_TURNS = 24;

function answerFor(document: BotDocument, form: Form, state: ConversationState): string {
  if (state.open?.stage !== 'filling') return 'yes';
  const slot = form.slots.find((candidate) => candidate.name === state.open?.asked);
  return slot ? exampleAnswer(findEntity(document, slot.entity), languageOf(document)) : '…';
}

/** A message that belongs to nothing. */
const NOTHING = '???';

/** What the bot does where it cannot act on what it hears. */
export interface HelpThrough {
  /** It asks which of several intents is meant, and hears that it is none; `null` where no message makes it ask. */
  several: TranscriptLine[] | null;
  /** A single intent is likely; `null` where no message is of that kind. */
  one: TranscriptLine[] | null;
  /** Messages belong to nothing, one after another. */
  noMatch: TranscriptLine[];
  /** Nothing is said. */
  silence: TranscriptLine[];
}

const saidAndHeard = (said: string, { says }: Step): TranscriptLine[] => [
  { from: 'user', text: said },
  ...says.map(({ text }) => ({ from: 'bot' as const, text })),
];

/** Where the bot is unsure about messages: the first that makes it ask which of several, and about one alone. */
async function unsureThrough(
  recogniser: Recogniser,
  messages: readonly string[],
  by: { now: string; encode: Encode },
): Promise<Pick<HelpThrough, 'several' | 'one'>> {
  const { customers } = languageOf(recogniser.document);
  const found: Pick<HelpThrough, 'several' | 'one'> = { several: null, one: null };
  for (const text of messages) {
    const asked = await takeTurn(recogniser, startConversation('40001'), { type: 'text', text }, by);
    if (asked.trace.reader !== 'clarification') continue;
    const offered = asked.state.choosing?.length ?? 0;
    const kind = offered > 1 ? 'several' : 'one';
    if (found[kind]) continue;
    found[kind] = saidAndHeard(text, asked);
    if (offered > 0) {
      const no = (kind === 'one' ? customers.no : customers.none)[0]!;
      const refused = await takeTurn(recogniser, asked.state, { type: 'text', text: no }, by);
      found[kind].push(...saidAndHeard(no, refused));
    }
    if (found.several && found.one) break;
  }
  return found;
}

/**
 * What the bot does where it cannot act on what it hears.
 * @param unsure messages that it may be unsure about, tried one after another
 */
export async function helpThrough(
  recogniser: Recogniser,
  unsure: readonly string[],
  by: { now: string; encode: Encode },
): Promise<HelpThrough> {
  const { now } = by;
  const through = (said: string, event: ConversationEvent): TranscriptLine[] => {
    const lines: TranscriptLine[] = [];
    let state = startConversation('40001');
    while (state.outcome === null && lines.length < MOST_TURNS) {
      const result = step(recogniser, state, event);
      lines.push(...saidAndHeard(said, result));
      state = result.state;
    }
    return lines;
  };
  return {
    ...(await unsureThrough(recogniser, unsure, by)),
    noMatch: through(NOTHING, { type: 'text', text: NOTHING, vectors: NO_VECTORS, now }),
    silence: through('(nothing)', { type: 'noInput' }),
  };
}

/** The conversation that a form gives when each slot is answered with an example. */
export function readThrough(recogniser: Recogniser, intent: string, form: Form, now: string): TranscriptLine[] {
  const { document } = recogniser;
  const first = document.intents.find((candidate) => candidate.name === intent)?.description ?? intent;
  const lines: TranscriptLine[] = [{ from: 'user', text: `(${first.replace(/\.$/, '')})` }];
  const hear = (result: Step): ConversationState => {
    for (const say of result.says) lines.push({ from: 'bot', text: say.text });
    return result.state;
  };
  let state = hear(step(recogniser, startConversation('40001'), { type: 'choice', intent }));
  for (let turn = 0; turn < MOST_TURNS && state.open?.form === form.name; turn++) {
    const text = answerFor(document, form, state);
    lines.push({ from: 'user', text });
    state = hear(step(recogniser, state, { type: 'text', text, vectors: NO_VECTORS, now }));
  }
  return lines;
}
