import { findEntity, findIntent, formOfIntent, type BotDocument, type Form, type Slot } from '../bot/document.js';
import { readMarking } from '../bot/marking.js';
import { tokenise, type Token } from '../text/tokens.js';
import type { Candidate } from './finders/finder.js';
import type { SlotValue, Value } from './value.js';

/** A value read for a slot. Offsets are UTF-16 code units of the original text. */
export interface SlotReading {
  slot: string;
  entity: string;
  start: number;
  end: number;
  text: string;
  value: Value;
}

/** Where slots share an entity ("from", "to"): how often each stood beside which words in the marked utterances. */
type RoleContexts = ReadonlyMap<string, ReadonlyMap<string, number>>;

const NEGATED = /(?:^|[^\p{L}])(?:not|without|instead of|rather than|no)\s+(?:an?\s+|the\s+|any\s+)?$/iu;
const CORRECTED =
  /(?:^|[^\p{L}])(?:no|sorry|wait|actually|i mean|i meant|make (?:that|it)|or rather|scratch that|correction)(?:[^\p{L}]|$)/iu;

function contextWords(tokens: readonly Token[], start: number, end: number): string[] {
  const before = tokens.filter((token) => token.end <= start).slice(-2);
  const after = tokens.filter((token) => token.start >= end).slice(0, 1);
  return [...before.map((token) => `<${token.norm}`), ...after.map((token) => `>${token.norm}`)];
}

/** Counts the words beside each slot's marks in the utterances of all intents that fill the form. */
function learnRoles(document: BotDocument, form: Form): RoleContexts {
  const roles = new Map<string, Map<string, number>>();
  for (const intent of document.intents.filter((candidate) => candidate.form === form.name)) {
    for (const utterance of intent.utterances) {
      const { text, marks } = readMarking(utterance);
      const { tokens } = tokenise(text);
      for (const mark of marks) {
        const counts = roles.get(mark.slot) ?? new Map<string, number>();
        for (const word of contextWords(tokens, mark.start, mark.end)) counts.set(word, (counts.get(word) ?? 0) + 1);
        roles.set(mark.slot, counts);
      }
    }
  }
  return roles;
}

function roleScore(roles: RoleContexts, slot: string, words: readonly string[]): number {
  const counts = roles.get(slot);
  return words.reduce((score, word) => score + Math.log(1 + (counts?.get(word) ?? 0)), 0);
}

/** Leaves out values that the customer took back ("two, sorry, three") or ruled out ("not gloss"). */
function withoutRetracted(text: string, readings: readonly SlotReading[]): SlotReading[] {
  const standing = readings.filter((reading) => !NEGATED.test(text.slice(0, reading.start)));
  return standing.filter((reading) => {
    const next = standing.find((other) => other.slot === reading.slot && other.start >= reading.end);
    return !next || !CORRECTED.test(text.slice(reading.end, next.start));
  });
}

/** Reads the slots of a form from the candidates found in a text. */
export interface SlotReader {
  /** @param asked the slot that was asked for; it has the first claim on values of its entity */
  read(text: string, candidates: readonly Candidate[], asked?: string | null): SlotReading[];
}

/** Prepares the reading of a form's slots. */
function prepareSlotReader(document: BotDocument, form: Form): SlotReader {
  const roles = learnRoles(document, form);
  const byEntity = new Map<string, Slot[]>();
  for (const slot of form.slots) byEntity.set(slot.entity, [...(byEntity.get(slot.entity) ?? []), slot]);
  return {
    read(text, candidates, asked = null) {
      const { tokens } = tokenise(text);
      const taken = new Set<string>();
      const readings: SlotReading[] = [];
      for (const candidate of candidates) {
        const slots = byEntity.get(candidate.entity);
        if (!slots) continue;
        const words = contextWords(tokens, candidate.start, candidate.end);
        const order = slots
          .map((slot) => ({
            slot,
            score:
              roleScore(roles, slot.name, words) +
              (slot.name === asked ? 0.5 : 0) -
              (slots.length > 1 && taken.has(slot.name) ? 2 : 0),
          }))
          .sort((a, b) => b.score - a.score);
        const slot = order[0]!.slot.name;
        taken.add(slot);
        const { entity, start, end, value } = candidate;
        readings.push({ slot, entity, start, end, text: text.slice(start, end), value });
      }
      return withoutRetracted(text, onePerWords(form, readings, asked));
    },
  };
}

/** Where two slots read the very same words, the asked one keeps them, else the one that stands first in the form. */
function onePerWords(form: Form, readings: readonly SlotReading[], asked: string | null): SlotReading[] {
  const place = (slot: string): number => (slot === asked ? -1 : form.slots.findIndex((item) => item.name === slot));
  return readings.filter((reading) =>
    readings.every(
      (other) =>
        other === reading ||
        other.start !== reading.start ||
        other.end !== reading.end ||
        place(reading.slot) <= place(other.slot),
    ),
  );
}

/** For an intent without a form the entities marked in its utterances stand for slots. */
function readEntitiesOfIntent(
  document: BotDocument,
  intentName: string,
  text: string,
  candidates: readonly Candidate[],
): SlotReading[] {
  const marked = new Set<string>();
  for (const utterance of findIntent(document, intentName)?.utterances ?? []) {
    for (const mark of readMarking(utterance).marks) marked.add(mark.slot);
  }
  return withoutRetracted(
    text,
    candidates
      .filter((candidate) => marked.has(candidate.entity))
      .map(({ entity, start, end, value }) => ({
        slot: entity,
        entity,
        start,
        end,
        text: text.slice(start, end),
        value,
      })),
  );
}

/** Prepares the reading of slots for every intent of a bot. */
export function prepareIntentSlots(
  document: BotDocument,
): (intentName: string, text: string, candidates: readonly Candidate[], asked?: string | null) => SlotReading[] {
  const readers = new Map(document.forms.map((form) => [form.name, prepareSlotReader(document, form)]));
  return (intentName, text, candidates, asked) => {
    const form = formOfIntent(document, intentName);
    if (!form) return readEntitiesOfIntent(document, intentName, text, candidates);
    return readers.get(form.name)!.read(text, candidates, asked);
  };
}

/**
 * Gathers readings into one value a slot. Several different values make a list where customers name several things
 * in one breath: for list values, and for numbers beside as many of them. Otherwise the last one said counts.
 */
export function gatherValues(
  document: BotDocument,
  form: Form,
  readings: readonly SlotReading[],
): Record<string, SlotValue> {
  const bySlot = new Map<string, Value[]>();
  for (const reading of readings) {
    const values = bySlot.get(reading.slot) ?? [];
    values.push(reading.value);
    bySlot.set(reading.slot, values);
  }
  const kindOf = (slot: string) =>
    findEntity(document, form.slots.find((item) => item.name === slot)?.entity ?? '')?.kind;
  const lines = Math.max(
    1,
    ...[...bySlot].filter(([slot]) => kindOf(slot) === 'list').map(([, values]) => distinct(values).length),
  );
  const gathered: Record<string, SlotValue> = {};
  for (const [slot, values] of bySlot) {
    const different = distinct(values);
    const kind = kindOf(slot);
    if (kind === 'list' && different.length > 1) gathered[slot] = different;
    else if (kind === 'number' && lines > 1 && values.length === lines) gathered[slot] = values;
    else gathered[slot] = values.at(-1)!;
  }
  return gathered;
}

function distinct(values: readonly Value[]): Value[] {
  return values.filter(
    (value, index) => values.findIndex((other) => JSON.stringify(other) === JSON.stringify(value)) === index,
  );
}
