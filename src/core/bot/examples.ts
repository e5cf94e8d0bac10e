import type { Language } from '../language/language.js';
import type { BotDocument, Entity, Form } from './document.js';

/** A text that a simple pattern matches: digits for `\d`, repeated as counted; other letters as they stand. */
function patternExample(pattern: string): string {
  return pattern
    .replace(/\\d|\[0-9\]/g, '7')
    .replace(/(.)\{(\d+)(?:,\d*)?\}/g, (_, character: string, count: string) => character.repeat(Number(count)))
    .replace(/[?*+^$\\()]/g, '');
}

/** What a customer might answer when asked for a value of an entity. */
export function exampleAnswer(entity: Entity | undefined, { examples }: Language): string {
  if (!entity) return '…';
  if (entity.kind === 'list') return entity.values?.[0]?.value ?? '…';
  if (entity.kind === 'pattern') return patternExample(entity.pattern ?? '');
  return examples[entity.kind];
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
