import {
  DEFAULT_CLARIFY,
  DEFAULT_COSTS,
  DEFAULT_GATE,
  DEFAULT_GREETING,
  DEFAULT_NO_MATCH,
  type BotDocument,
  type Entity,
  type Form,
  type GateSettings,
  type Intent,
  type ListValue,
  type Slot,
  type Utterance,
} from './document.js';
import { MarkingError, readMarking, writeMarking } from './marking.js';
import type { Fault } from '../shape/fault.js';
import { shapeFaults } from './botShape.js';
import { validateReferences, withMainForms } from './validate.js';

/** A bot as its file has it: rows without ids, utterances with inline marking. */
export interface BotFile extends Omit<BotDocument, 'entities' | 'intents' | 'forms'> {
  entities: (Omit<Entity, 'values'> & { values?: Omit<ListValue, 'id'>[] })[];
  intents: (Omit<Intent, 'utterances'> & { utterances: string[] })[];
  forms: (Omit<Form, 'slots'> & { slots: Omit<Slot, 'id'>[] })[];
}

/** A parsed file whose shape is right: what may be left out is missing, and a value may be a text alone. */
type Draft = Partial<
  Omit<BotFile, 'entities' | 'intents' | 'forms'> & {
    entities: (Omit<Entity, 'values'> & { values?: (string | { value: string; synonyms?: string[] })[] })[];
    intents: (Omit<Intent, 'utterances'> & { utterances?: string[] })[];
    forms: (Omit<Form, 'slots'> & { slots?: Partial<Slot>[] })[];
  }
>;

/** What reading a bot file gives: the whole document, or every fault found. */
export type ReadResult = { ok: true; document: BotDocument } | { ok: false; faults: Fault[] };

/** Levels and costs that are left out are the usual ones; without any cost there are none of its own. */
function gateOf({ costs, clarify, ...levels }: Partial<GateSettings> = {}): GateSettings {
  return {
    ...DEFAULT_GATE,
    ...defined(levels),
    ...(clarify && { clarify: { ...DEFAULT_CLARIFY, ...defined(clarify) } }),
    ...(costs && { costs: { ...DEFAULT_COSTS, ...defined(costs) } }),
  };
}

function defined<T extends object>(value: T): T {
  return Object.fromEntries(Object.entries(value).filter(([, part]) => part !== undefined)) as T;
}

/** Counts rows, so that the same file always gives the same ids. @param letter what ids begin with */
function counter(letter: string): () => string {
  let count = 0;
  return () => `${letter}${++count}`;
}

/** Fills in what a file may leave out and gives rows their ids, so that the same file always gives the same document. */
function normalise(given: Draft): { document: BotDocument; faults: Fault[] } {
  const [utteranceId, valueId, slotId] = ['u', 'v', 's'].map(counter) as [() => string, () => string, () => string];
  const faults: Fault[] = [];
  const utterance = (source: string, path: string): Utterance => {
    try {
      return { id: utteranceId(), ...readMarking(source) };
    } catch (error) {
      if (!(error instanceof MarkingError)) throw error;
      faults.push({ path, message: error.message });
      return { id: utteranceId(), text: source, marks: [] };
    }
  };
  const entity = ({ values, ...own }: NonNullable<Draft['entities']>[number]): Entity =>
    defined({
      ...own,
      ...(own.kind === 'list'
        ? {
            values: (values ?? []).map((item) =>
              typeof item === 'string'
                ? { id: valueId(), value: item, synonyms: [] }
                : { id: valueId(), value: item.value, synonyms: item.synonyms ?? [] },
            ),
          }
        : {}),
    });
  const document: BotDocument = {
    reedGate: 1,
    name: given.name!,
    languages: given.languages && given.languages.length > 0 ? given.languages : ['en'],
    timeZone: given.timeZone ?? 'Europe/London',
    region: given.region ?? (given.timeZone?.startsWith('America/') ? 'US' : 'GB'),
    greeting: given.greeting ?? DEFAULT_GREETING,
    entities: (given.entities ?? []).map(entity),
    intents: (given.intents ?? []).map(({ utterances, ...intent }, at) =>
      defined({
        ...intent,
        utterances: (utterances ?? []).map((source, row) => utterance(source, `intents[${at}].utterances[${row}]`)),
      }),
    ),
    forms: (given.forms ?? []).map(({ slots, ...form }) =>
      defined({
        ...form,
        slots: (slots ?? []).map((slot) =>
          defined({
            ...(slot as Slot),
            id: slotId(),
            required: slot.required ?? false,
            prompts: slot.prompts ?? [],
          }),
        ),
      }),
    ),
    desks: (given.desks ?? []).map(defined),
    gate: gateOf(given.gate),
    noMatch: { ...DEFAULT_NO_MATCH, ...defined(given.noMatch ?? {}) },
    texts: defined(given.texts ?? {}),
  };
  return { document, faults };
}

/** Reads a parsed bot file. Every fault is listed with its path; nothing is taken from a file that has one. */
export function readBot(value: unknown): ReadResult {
  const shape = shapeFaults(value);
  if (shape.length > 0) return { ok: false, faults: shape };
  const { document, faults: ofMarks } = normalise(value as Draft);
  const faults = [...ofMarks, ...validateReferences(document)];
  return faults.length > 0 ? { ok: false, faults } : { ok: true, document: withMainForms(document) };
}

/** A bot as its file has it; read again it is the same but for the ids of rows. */
export function fileOf(document: BotDocument): BotFile {
  return {
    ...document,
    entities: document.entities.map(({ values, ...entity }) => ({
      ...entity,
      ...(values ? { values: values.map(({ value, synonyms }) => ({ value, synonyms })) } : {}),
    })),
    intents: document.intents.map(({ utterances, ...intent }) => ({
      ...intent,
      utterances: utterances.map(writeMarking),
    })),
    forms: document.forms.map(({ slots, ...form }) => ({
      ...form,
      slots: slots.map(({ id: _, ...slot }) => slot),
    })),
  };
}
