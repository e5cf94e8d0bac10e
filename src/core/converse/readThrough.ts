import { NO_VECTORS } from '../encode/encoder.js';
import { findEntity, type BotDocument, type Form } from '../bot/document.js';
import { exampleAnswer } from '../bot/examples.js';
import { languageOf } from '../language/index.js';
import type { Recogniser } from '../recognise/open.js';
import { startConversation, type ConversationEvent, type ConversationState, type Step } from './state.js';
import { step } from './step.js';
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

/** What the bot does when messages belong to nothing, one after another, and when nothing is said. */
export function helpThrough(
  recogniser: Recogniser,
  now: string,
): { noMatch: TranscriptLine[]; silence: TranscriptLine[] } {
  const through = (said: string, event: ConversationEvent): TranscriptLine[] => {
    const lines: TranscriptLine[] = [];
    let state = startConversation('40001');
    while (state.outcome === null && lines.length < MOST_TURNS) {
      const result = step(recogniser, state, event);
      lines.push({ from: 'user', text: said }, ...result.says.map(({ text }) => ({ from: 'bot' as const, text })));
      state = result.state;
    }
    return lines;
  };
  return {
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
