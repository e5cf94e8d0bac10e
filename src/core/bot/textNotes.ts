import { argumentsOf, type MessageArgument } from '../say/message.js';
import { ENGINE_TEXTS, TEXT_NAMES } from '../say/texts.js';
import { valuesIn } from '../say/condition.js';
import { closest } from '../text/distance.js';
import { findEntity, findForm, type BotDocument, type Entity, type Form, type Intent } from './document.js';
import { allWordings, variants, type Localised } from './localised.js';
import type { Note } from './note.js';

/** What a text may put in: names with the entity behind each, or `null` where a name stands for words of the engine. */
export type Insertable = ReadonlyMap<string, Entity | null>;

/** Names that every text of a form has beside its slots: the number of the order. */
const REFERENCE_NAMES = ['reference', 'order_no'];

/** What the texts of a form may put in. */
function insertableInForm(document: BotDocument, form: Form): Insertable {
  return new Map<string, Entity | null>([
    ...REFERENCE_NAMES.map((name): [string, null] => [name, null]),
    ...form.slots.map(({ name, entity }): [string, Entity | null] => [name, findEntity(document, entity) ?? null]),
  ]);
}

/** What the reply of an intent may put in: the slots of its form, else the entities that its utterances mark. */
export function insertableInReply(document: BotDocument, intent: Intent): Insertable {
  const form = findForm(document, intent.form);
  if (form) return new Map(form.slots.map(({ name, entity }) => [name, findEntity(document, entity) ?? null]));
  const marked = new Set(intent.utterances.flatMap(({ marks }) => marks.map(({ slot }) => slot)));
  return new Map([...marked].map((name) => [name, findEntity(document, name) ?? null]));
}

const words = (option: string): string =>
  option
    .replace(/[_\s-]+/gu, ' ')
    .trim()
    .toLowerCase();

/** What is odd about how a text uses an argument, as the end of a sentence; `null` where nothing is. */
function oddUse({ name, use, options }: MessageArgument, known: Insertable): string | null {
  if (!known.has(name)) {
    const near = closest(name, [...known.keys()]);
    return `there is nothing called “${name}” here, so the clause is left out${near ? `; did you mean “${near}”?` : ''}`;
  }
  const entity = known.get(name);
  if (!entity) return null;
  const { kind } = entity;
  if (use === 'date' && kind !== 'date' && kind !== 'datetime') return `“${name}” is no date, so it is said plainly`;
  if (use === 'time' && kind !== 'time' && kind !== 'datetime') return `“${name}” is no time, so it is said plainly`;
  if ((use === 'number' || use === 'plural' || use === 'ordinal') && kind !== 'number' && kind !== 'ordinal') {
    return `“${name}” is no number, so it is said plainly`;
  }
  if (use !== 'select' || kind !== 'list') return null;
  const values = new Set((entity.values ?? []).map(({ value }) => words(value)));
  const unknown = options.find((option) => !values.has(words(option)));
  return unknown === undefined ? null : `“${unknown}” is no value of ${entity.name}, so its wording is never said`;
}

/** What the texts put in that is not there, or is of another kind. @param what names the text: "The confirmation" */
export function textNotes(
  text: Localised | undefined,
  what: string,
  known: Insertable,
  place: Partial<Note> = {},
): Note[] {
  const told = new Set<string>();
  return allWordings(text).flatMap((wording) =>
    argumentsOf(wording).flatMap((argument): Note[] => {
      const odd = oddUse(argument, known);
      if (odd === null || told.has(odd)) return [];
      told.add(odd);
      return [
        {
          text: `${what}: ${odd}${odd.endsWith('?') ? '' : '.'}`,
          weight: known.has(argument.name) ? 'weak' : 'missing',
          ...place,
        },
      ];
    }),
  );
}

/** What the texts and conditions of a form speak of that is not there. */
export function formTextNotes(document: BotDocument, form: Form): Note[] {
  const known = insertableInForm(document, form);
  return [
    ...form.slots.flatMap((slot) => [
      ...textNotes(slot.prompts, `The prompt of ${slot.name}`, known, { slot: slot.name }),
      ...conditionNotes(document, form, slot),
    ]),
    ...textNotes(form.confirm, 'The confirmation', known),
    ...textNotes(form.decline, 'The decline', known),
    ...textNotes(form.done, 'The text for done', known),
  ];
}

function conditionNotes(document: BotDocument, form: Form, { name, when }: Form['slots'][number]): Note[] {
  return valuesIn(when).flatMap(({ slot, value }): Note[] => {
    const entity = findEntity(document, form.slots.find((other) => other.name === slot)?.entity ?? '');
    if (entity?.kind !== 'list' || entity.values?.some((item) => item.value === value)) return [];
    const near = closest(
      value,
      (entity.values ?? []).map((item) => item.value),
    );
    return [
      {
        text: `${name} is asked for when ${slot} is “${value}”, which is no value of ${entity.name}${near ? `; did you mean “${near}”?` : '.'}`,
        weight: 'missing',
        slot: name,
      },
    ];
  });
}

const NOTHING: Insertable = new Map();

/** What the texts of the whole bot put in that is not there. */
export function botTextNotes(document: BotDocument): Note[] {
  const anywhere = new Map(document.forms.flatMap((form) => [...insertableInForm(document, form)]));
  return [
    ...textNotes(document.greeting, 'The greeting', NOTHING),
    ...textNotes(document.noMatch.prompts, 'No match', NOTHING),
    ...textNotes(document.noMatch.giveUp, 'Give up', anywhere),
    ...document.desks.flatMap(({ name, handover }) => textNotes(handover, `Handing over to ${name}`, anywhere)),
    ...TEXT_NAMES.flatMap((name) => {
      const known = new Map(Object.keys(ENGINE_TEXTS[name].arguments).map((key) => [key, null]));
      return textNotes(document.texts[name], `“${ENGINE_TEXTS[name].when}”`, known);
    }),
  ];
}

/** Whether the bot has nothing to do or say when an intent is accepted. */
export const isUnanswered = (document: BotDocument, { form, desk, reply }: Intent): boolean =>
  form === undefined && desk === undefined && variants(reply, document.languages[0] ?? 'en').length === 0;
