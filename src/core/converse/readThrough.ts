import { NO_VECTORS } from '../encode/encoder.js';
import { findEntity, type BotDocument, type Entity, type Form } from '../bot/document.js';
import type { Recogniser } from '../recognise/recogniser.js';
import { startConversation, type ConversationState, type Step } from './state.js';
import { step } from './step.js';
import type { TranscriptLine } from './walkthrough.js';

const EXAMPLES: Record<Exclude<Entity['kind'], 'list' | 'pattern' | 'free'>, string> = {
  number: 'four',
  quantity: 'two kilos',
  ordinal: 'the second',
  date: 'on Friday',
  time: 'half past three',
  datetime: 'Friday at half past three',
  duration: 'two hours',
  money: '£20',
  percent: '10 %',
  email: 'wren@example.org',
  phone: '01632 960 123',
  url: 'www.example.org',
  country: 'Ireland',
  person: 'Wren Allard',
  address: '12 Sluice Lane, Dunlow',
};

/** A text that a simple pattern matches: digits for `\d`, repeated as counted; other letters as they stand. */
function patternExample(pattern: string): string {
  return pattern
    .replace(/\\d|\[0-9\]/g, '7')
    .replace(/(.)\{(\d+)(?:,\d*)?\}/g, (_, character: string, count: string) => character.repeat(Number(count)))
    .replace(/[?*+^$\\()]/g, '');
}

/** What a customer might answer when asked for a value of an entity. */
function exampleAnswer(entity: Entity | undefined): string {
  if (!entity) return '…';
  if (entity.kind === 'list') return entity.values?.[0]?.value ?? '…';
  if (entity.kind === 'pattern') return patternExample(entity.pattern ?? '');
  return entity.kind === 'free' ? 'in my own words' : EXAMPLES[entity.kind];
}

/** The most turns that are written out; a form that goes on longer asks in circles. */
const MOST_TURNS = 24;

function answerFor(document: BotDocument, form: Form, state: ConversationState): string {
  if (state.open?.stage !== 'filling') return 'yes';
  const slot = form.slots.find((candidate) => candidate.name === state.open?.asked);
  return slot ? exampleAnswer(findEntity(document, slot.entity)) : '…';
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
