import type { FindValues } from '../recognise/finders/finder.js';
import { listFinder } from '../recognise/finders/list.js';
import { tokenise } from '../text/tokens.js';
import { findEntity, findForm, type BotDocument, type Entity, type Form, type Intent } from './document.js';
import { variants } from './localised.js';
import type { Note } from './note.js';
import { botTextNotes, formTextNotes, insertableInReply, isUnanswered, textNotes } from './textNotes.js';

/** A prediction of a model that had not learned from the utterance. */
export interface HeldOut {
  intent: string;
  text: string;
  predicted: string | null;
}

/** An utterance in which values of some entities could not be looked for. */
export interface Unread {
  intent: string;
  text: string;
  entities: readonly string[];
}

/** Fewer utterances than this teach an intent poorly. */
const FEW_UTTERANCES = 10;

const language = (document: BotDocument): string => document.languages[0] ?? 'en';

const foldLine = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** What a form lacks before it can do its work. */
export function formNotes(document: BotDocument, form: Form): Note[] {
  const notes: Note[] = [];
  const spoken = language(document);
  if (!document.intents.some((intent) => intent.form === form.name)) {
    notes.push({ text: 'No intent opens this form.', weight: 'missing' });
  }
  if (form.slots.length === 0) notes.push({ text: 'The form has no slots.', weight: 'missing' });
  for (const slot of form.slots) {
    if (slot.required && variants(slot.prompts, spoken).length === 0) {
      notes.push({ text: `${slot.name} is required and has no prompt.`, weight: 'missing', slot: slot.name });
    }
    const entity = findEntity(document, slot.entity);
    if (entity?.kind === 'list' && (entity.values ?? []).length === 0) {
      notes.push({
        text: `${slot.name} asks for ${entity.name}, which has no values yet.`,
        weight: 'missing',
        slot: slot.name,
      });
    }
  }
  if (variants(form.done, spoken).length === 0) {
    notes.push({ text: 'Nothing is said when the form is complete.', weight: 'missing' });
  }
  if (variants(form.confirm, spoken).length > 0 && variants(form.decline, spoken).length === 0) {
    notes.push({ text: 'Nothing is written for a “no” to the read-back.', weight: 'weak' });
  }
  return [...notes, ...formTextNotes(document, form)];
}

const isMissing = ({ weight }: Note): boolean => weight === 'missing';

/** Forms with something missing. */
export function incompleteForms(document: BotDocument): string[] {
  return document.forms.filter((form) => formNotes(document, form).some(isMissing)).map((form) => form.name);
}

/** What keeps a bot from saying all that it has to say. */
export interface SayGaps {
  /** Forms with something missing. */
  forms: string[];
  /** Intents to which the bot has nothing to say. */
  intents: string[];
  /** Remarks on texts of the whole bot, and on replies, that put in what is not there. */
  texts: Note[];
}

/** Counts what is missing; `null` for a bot that has nothing to say anything about yet. */
export function sayGaps(document: BotDocument): SayGaps | null {
  if (document.intents.length === 0 && document.forms.length === 0) return null;
  const replies = document.intents.flatMap((intent) =>
    textNotes(intent.reply, `The reply of ${intent.name}`, insertableInReply(document, intent)),
  );
  return {
    forms: incompleteForms(document),
    intents: document.intents.filter((intent) => isUnanswered(document, intent)).map(({ name }) => name),
    texts: [...replies, ...botTextNotes(document)].filter(isMissing),
  };
}

/** What an intent lacks, which of its utterances could not be read in full, and which intents it is mistaken for. */
export function intentNotes(
  document: BotDocument,
  intent: Intent,
  heldOut: readonly HeldOut[],
  unread: readonly Unread[] = [],
): Note[] {
  const notes: Note[] = [];
  if (intent.utterances.length < FEW_UTTERANCES) {
    notes.push({
      text: `${intent.utterances.length} utterances; ${FEW_UTTERANCES} to 15 of different build teach an intent well.`,
      weight: 'weak',
    });
  }
  if (isUnanswered(document, intent)) {
    notes.push({
      text: 'The bot has nothing to say to this intent: give it a form, a reply or a desk.',
      weight: 'missing',
    });
  }
  notes.push(
    ...textNotes(intent.reply, 'The reply', insertableInReply(document, intent)),
    ...doubledNotes(document, intent),
    ...unreadNotes(intent, unread),
    ...unusedSlotNotes(document, intent),
    ...mistakenNotes(intent, heldOut),
  );
  return notes;
}

function doubledNotes(document: BotDocument, intent: Intent): Note[] {
  const elsewhere = new Map<string, string>();
  for (const other of document.intents) {
    if (other.name === intent.name) continue;
    for (const utterance of other.utterances) elsewhere.set(foldLine(utterance.text), other.name);
  }
  const seen = new Map<string, number>();
  return intent.utterances.flatMap((utterance, row): Note[] => {
    const line = foldLine(utterance.text);
    const first = seen.get(line);
    seen.set(line, first ?? row);
    const other = elsewhere.get(line);
    if (other !== undefined)
      return [{ text: `Row ${row + 1} also stands in ${other}; one of the two should go.`, weight: 'missing', row }];
    if (first !== undefined)
      return [{ text: `Row ${row + 1} says the same as row ${first + 1}.`, weight: 'weak', row }];
    return [];
  });
}

function unreadNotes(intent: Intent, unread: readonly Unread[]): Note[] {
  const own = new Map(
    unread.filter((line) => line.intent === intent.name).map(({ text, entities }) => [text, entities]),
  );
  return intent.utterances.flatMap((utterance, row): Note[] => {
    const entities = own.get(utterance.text);
    if (!entities) return [];
    const text = `In row ${row + 1}, ${entities.join(', ')} could not be looked for; the rest of it is learned. Write it in another way, or take it out.`;
    return [{ text, weight: 'missing', row }];
  });
}

function unusedSlotNotes(document: BotDocument, intent: Intent): Note[] {
  const form = findForm(document, intent.form);
  const marked = new Set(intent.utterances.flatMap(({ marks }) => marks.map((mark) => mark.slot)));
  return (form?.slots ?? [])
    .filter((slot) => slot.required && !marked.has(slot.name) && findEntity(document, slot.entity)?.kind === 'free')
    .map((slot) => ({
      text: `No utterance has ${slot.name} marked; free words are only found where they were marked.`,
      weight: 'weak',
      slot: slot.name,
    }));
}

function mistakenNotes(intent: Intent, heldOut: readonly HeldOut[]): Note[] {
  const own = heldOut.filter((prediction) => prediction.intent === intent.name);
  const mistaken = new Map<string, number>();
  for (const { predicted } of own) {
    if (predicted !== null && predicted !== intent.name) mistaken.set(predicted, (mistaken.get(predicted) ?? 0) + 1);
  }
  return [...mistaken]
    .filter(([, count]) => count > 1)
    .sort((a, b) => b[1] - a[1])
    .map(([other, count]) => ({
      text: `${count} utterances are taken for ${other} when held out.`,
      weight: 'weak' as const,
    }));
}

const NO_WORDS: ReadonlySet<string> = new Set();
/** List values do not depend on the day. */
const ANY_DAY = '2026-01-01T12:00';

/** A mark whose words are no value of its list. */
export interface UnknownValue {
  row: number;
  slot: string;
  entity: string;
  text: string;
}

/** Marked words that their list does not know, so that the bot would not find them elsewhere. */
export function unknownValues(document: BotDocument, intent: Intent): UnknownValue[] {
  const form = findForm(document, intent.form);
  const finders = new Map<string, FindValues>();
  const isKnown = (entity: Entity, words: string): boolean => {
    const find =
      finders.get(entity.name) ?? listFinder.prepare(entity, { region: document.region, vocabulary: NO_WORDS });
    finders.set(entity.name, find);
    const inside = words.trim().length;
    return find(tokenise(words), ANY_DAY).some(({ start, end }) => end - start === inside);
  };
  return intent.utterances.flatMap(({ text, marks }, row) => {
    return marks.flatMap((mark): UnknownValue[] => {
      const entityName = form?.slots.find((slot) => slot.name === mark.slot)?.entity ?? mark.slot;
      const entity = findEntity(document, entityName);
      if (entity?.kind !== 'list') return [];
      const words = text.slice(mark.start, mark.end);
      return isKnown(entity, words) ? [] : [{ row, slot: mark.slot, entity: entity.name, text: words }];
    });
  });
}
