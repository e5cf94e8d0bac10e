import type { SlotValue, Values } from '../recognise/value.js';
import { renderMessage } from '../say/render.js';
import type { Insert } from '../say/engineTexts.js';
import { languageOf } from '../language/index.js';
import { exampleAnswer, markedExample } from './examples.js';
import { findEntity, type BotDocument, type Entity, type EntityKind, type Form } from './document.js';
import { namedAs, putHeld } from '../text/named.js';

/** Values that a customer may have given, by kind, for examples. */
const EXAMPLES: Partial<Record<EntityKind, SlotValue>> = {
  number: 4,
  ordinal: 2,
  date: '2026-03-06',
  time: '15:30',
  datetime: '2026-03-06T15:30',
  money: { amount: 20, currency: 'GBP' },
};

/** Kinds whose words are kept as the customer says them. */
const AS_SAID: readonly (EntityKind | undefined)[] = ['free', 'person', 'address', 'pattern', 'email', 'country'];

/** An example of this bot: a value of the list, words that are marked as the slot, else what anybody may say. */
function exampleValue(document: BotDocument, form: Form, name: string, entity: Entity | undefined): SlotValue {
  const marked = AS_SAID.includes(entity?.kind) ? markedExample(document, form, name) : undefined;
  return marked ?? (entity && EXAMPLES[entity.kind]) ?? exampleAnswer(entity, languageOf(document));
}

const optionOf = (value: string): string => value.trim().replace(/[\s-]+/gu, '_');
const MOST_OPTIONS = 3;

/** Other ways to put in a slot than as it stands. */
function formsOf(name: string, entity: Entity | undefined): { text: string; hint: string }[] {
  if (entity?.kind === 'number') {
    return [{ text: `{${name}, plural, one {# piece} other {# pieces}}`, hint: 'one or several' }];
  }
  if (entity?.kind === 'date') return [{ text: `{${name}, date, short}`, hint: 'in figures' }];
  const values = entity?.kind === 'list' ? (entity.values ?? []).slice(0, MOST_OPTIONS) : [];
  if (values.length === 0) return [];
  const options = values.map(({ value }) => `${optionOf(value)} {${value}}`).join(' ');
  return [{ text: `{${name}, select, ${options} other {…}}`, hint: 'a wording by value' }];
}

/** What the texts of a form may put in. */
export function insertsForForm(document: BotDocument, form: Form): Insert[] {
  const values: Values = namedAs<SlotValue>({ reference: '40001' });
  const entities = new Map(form.slots.map(({ name, entity }) => [name, findEntity(document, entity)]));
  for (const [name, entity] of entities) putHeld(values, name, exampleValue(document, form, name, entity));
  const say = (text: string) => renderMessage(text, values, document.languages[0] ?? 'en', document.region);
  const plain = form.slots.map(({ name }) => ({ text: `{${name}}`, hint: `the slot ${name}` }));
  const others = form.slots.flatMap(({ name }) => formsOf(name, entities.get(name)));
  const reference = { text: '{reference}', hint: 'the number given when it is complete' };
  return [...plain, reference, ...others].map((insert) => ({ ...insert, example: say(insert.text) }));
}
