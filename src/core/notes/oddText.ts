import { findEntity, findForm, type BotDocument, type Entity, type Form, type Intent } from '../bot/document.js';
import { allWordings, mapWordings, type Localised } from '../bot/localised.js';
import type { BotAct } from '../bot/acts/index.js';
import { argumentsOf, renameArgument, type MessageArgument } from '../say/message.js';
import { ENGINE_TEXTS, TEXT_NAMES } from '../say/engineTexts.js';
import { closest } from '../text/distance.js';
import type { Check, Place, Remark } from './note.js';

/** What a text may put in: names with the entity behind each, or `null` where a name stands for words of the engine. */
type Insertable = ReadonlyMap<string, Entity | null>;

/** A text that is looked at. */
interface Text {
  text: Localised | undefined;
  /** Names it in a sentence: "The confirmation". */
  what: string;
  known: Insertable;
  place?: Place;
  /** The act that puts another text in its place. */
  putting: (text: Localised) => BotAct;
}

/** Names that every text of a form has beside its slots: the number of the order. */
const REFERENCE_NAMES = ['reference', 'order_no'];

/** What the texts of a form may put in. */
const insertableInForm = (document: BotDocument, { slots }: Form): Insertable =>
  new Map<string, Entity | null>([
    ...REFERENCE_NAMES.map((name): [string, null] => [name, null]),
    ...slots.map(({ name, entity }): [string, Entity | null] => [name, findEntity(document, entity) ?? null]),
  ]);

/** What the reply of an intent may put in: the slots of its form, else the entities that its utterances mark. */
function insertableInReply(document: BotDocument, intent: Intent): Insertable {
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

/** What is odd about how a text uses an argument of a known name, as the end of a sentence; `null` where nothing is. */
function oddUse({ name, use, options }: MessageArgument, { kind, name: entity, values }: Entity): string | null {
  if (use === 'date' && kind !== 'date' && kind !== 'datetime') return `“${name}” is no date, so it is said plainly`;
  if (use === 'time' && kind !== 'time' && kind !== 'datetime') return `“${name}” is no time, so it is said plainly`;
  if ((use === 'number' || use === 'plural' || use === 'ordinal') && kind !== 'number' && kind !== 'ordinal') {
    return `“${name}” is no number, so it is said plainly`;
  }
  if (use !== 'select' || kind !== 'list') return null;
  const known = new Set((values ?? []).map(({ value }) => words(value)));
  const unknown = options.find((option) => !known.has(words(option)));
  return unknown === undefined ? null : `“${unknown}” is no value of ${entity}, so its wording is never said`;
}

/** What a text puts in that is not there, or is of another kind. */
function remarksOn({ text, what, known, place = {}, putting }: Text): Remark[] {
  const told = new Set<string>();
  const remark = (argument: MessageArgument): Remark | null => {
    const entity = known.get(argument.name);
    if (entity === undefined) {
      const near = closest(argument.name, [...known.keys()]);
      const end = near ? `; did you mean “${near}”?` : '.';
      const mended = (to: string) =>
        putting(mapWordings(text!, (wording) => renameArgument(wording, argument.name, to)));
      return {
        text: `${what}: there is nothing called “${argument.name}” here, so the clause is left out${end}`,
        weight: 'missing',
        place,
        ...(near ? { mend: { words: `Put {${near}}`, act: mended(near) } } : {}),
      };
    }
    const odd = entity && oddUse(argument, entity);
    return odd ? { text: `${what}: ${odd}.`, weight: 'weak', place } : null;
  };
  return allWordings(text).flatMap((wording) =>
    argumentsOf(wording).flatMap((argument): Remark[] => {
      const found = remark(argument);
      if (found === null || told.has(found.text)) return [];
      told.add(found.text);
      return [found];
    }),
  );
}

function textsOfForm(document: BotDocument, form: Form): Text[] {
  const known = insertableInForm(document, form);
  const ofForm = (key: 'confirm' | 'decline' | 'done', what: string): Text => ({
    text: form[key],
    what,
    known,
    putting: (text) => ({ do: 'changeForm', name: form.name, to: { [key]: text } }),
  });
  return [
    ...form.slots.map(({ id, name, prompts }): Text => ({
      text: prompts,
      what: `The prompt of ${name}`,
      known,
      place: { slot: name },
      putting: (text) => ({ do: 'changeSlot', slot: id, to: { prompts: text } }),
    })),
    ofForm('confirm', 'The confirmation'),
    ofForm('decline', 'The decline'),
    ofForm('done', 'The text for done'),
  ];
}

const replyOf = (document: BotDocument, intent: Intent, what: string): Text => ({
  text: intent.reply,
  what,
  known: insertableInReply(document, intent),
  putting: (reply) => ({ do: 'changeIntent', name: intent.name, to: { reply } }),
});

/** The texts of the whole bot. */
function textsOfBot(document: BotDocument): Text[] {
  const anywhere = new Map(document.forms.flatMap((form) => [...insertableInForm(document, form)]));
  return [
    {
      text: document.greeting,
      what: 'The greeting',
      known: new Map(),
      putting: (greeting) => ({ do: 'changeSettings', to: { greeting } }),
    },
    {
      text: document.noMatch.prompts,
      what: 'No match',
      known: new Map(),
      putting: (prompts) => ({ do: 'changeNoMatch', to: { prompts } }),
    },
    {
      text: document.noMatch.giveUp,
      what: 'Give up',
      known: anywhere,
      putting: (giveUp) => ({ do: 'changeNoMatch', to: { giveUp } }),
    },
    ...document.desks.map(({ name, handover }): Text => ({
      text: handover,
      what: `Handing over to ${name}`,
      known: anywhere,
      putting: (text) => ({ do: 'changeDesk', name, to: { handover: text } }),
    })),
    ...TEXT_NAMES.map((name): Text => ({
      text: document.texts[name],
      what: `“${ENGINE_TEXTS[name].when}”`,
      known: new Map(Object.keys(ENGINE_TEXTS[name].arguments).map((key) => [key, null])),
      putting: (to) => ({ do: 'changeText', text: name, to }),
    })),
  ];
}

/** Texts that put in what is not there, or say it in a way that its kind has not. */
export const oddText: Check = {
  name: 'odd text',
  intent: ({ document }, intent) => remarksOn(replyOf(document, intent, 'The reply')),
  form: ({ document }, form) => textsOfForm(document, form).flatMap(remarksOn),
  bot: ({ document }) => textsOfBot(document).flatMap(remarksOn),
};

/** Remarks on the replies of a bot, each naming its intent. */
export const remarksOnReplies = (document: BotDocument): Remark[] =>
  document.intents.flatMap((intent) => remarksOn(replyOf(document, intent, `The reply of ${intent.name}`)));
