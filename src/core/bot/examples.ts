import type { BotDocument, Entity, Form } from './document.js';

/** What customers say for a value of each kind that has no values of its own. */
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
export function exampleAnswer(entity: Entity | undefined): string {
  if (!entity) return '…';
  if (entity.kind === 'list') return entity.values?.[0]?.value ?? '…';
  if (entity.kind === 'pattern') return patternExample(entity.pattern ?? '');
  return entity.kind === 'free' ? 'in my own words' : EXAMPLES[entity.kind];
}

/** What the utterances of a form have marked as a slot; `undefined` where none has it. */
export function markedExample(document: BotDocument, form: Form, slot: string): string | undefined {
  for (const { utterances } of document.intents.filter((intent) => intent.form === form.name)) {
    for (const { text, marks } of utterances) {
      const mark = marks.find((own) => own.slot === slot);
      if (mark) return text.slice(mark.start, mark.end);
    }
  }
  return undefined;
}
