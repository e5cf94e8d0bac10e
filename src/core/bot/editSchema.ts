import { array, boolean, lazy, mixed, number, object, string, type Schema } from 'yup';
import { TEXT_NAMES } from '../say/texts.js';
import type { Edit } from './edit.js';
import {
  conditionSchema,
  defaultSchema,
  entityKindSchema,
  entitySchema,
  gateSchema,
  isLocalised,
  localisedSchema,
  onNoSchema,
  slotSchema,
  TEXT_MESSAGE,
  triesSchema,
} from './schema.js';

const text = () => string().strict().defined();
const row = object({ index: number().strict().integer().min(0).required(), was: text() })
  .noUnknown()
  .strict();
const rows = array().of(row).min(1).required();
const listValue = object({ value: text(), synonyms: array().of(text()).required() })
  .noUnknown()
  .strict();
const names = array().of(text()).min(1).required();
const lines = array().of(text()).min(1).max(50_000, 'At most 50,000 lines at once.').required();

/** A text that may be taken away. */
const emptiable = () =>
  mixed()
    .nullable()
    .test('text', TEXT_MESSAGE, (value) => value === null || isLocalised(value));

/** The parts to be changed; a part that is not named stays. */
const change = (parts: Record<string, Schema>) => object(parts).noUnknown().strict().required();

const ACTS: Record<Edit['do'], Record<string, Schema>> = {
  addIntent: { name: text(), description: string().strict() },
  changeIntent: {
    name: text(),
    to: change({
      name: string().strict(),
      description: string().strict().nullable(),
      called: emptiable(),
      offered: boolean().strict().nullable(),
      form: string().strict().nullable(),
      reply: emptiable(),
      desk: string().strict().nullable(),
    }),
  },
  deleteIntents: { names },
  addUtterances: { intent: text(), at: number().strict().integer().min(0), utterances: lines },
  changeUtterance: { intent: text(), row: row.required(), to: text() },
  deleteUtterances: { intent: text(), rows },
  moveUtterances: { intent: text(), rows, to: text() },
  addEntity: { entity: entitySchema.required() },
  changeEntity: {
    name: text(),
    to: change({
      name: string().strict(),
      kind: entityKindSchema(),
      misspellings: boolean().strict().nullable(),
      pattern: string().strict().nullable(),
    }),
  },
  deleteEntity: { name: text() },
  addValues: {
    entity: text(),
    values: array().of(listValue).min(1).max(20_000, 'At most 20,000 values at once.').required(),
  },
  changeValue: {
    entity: text(),
    value: text(),
    to: change({ value: string().strict(), synonyms: array().of(text()) }),
  },
  deleteValues: { entity: text(), values: names },
  addForm: { name: text(), intent: string().strict() },
  changeForm: {
    name: text(),
    to: change({
      name: string().strict(),
      confirm: emptiable(),
      decline: emptiable(),
      onNo: onNoSchema().nullable(),
      done: emptiable(),
      desk: string().strict().nullable(),
    }),
  },
  deleteForm: { name: text() },
  addSlot: { form: text(), slot: slotSchema.required() },
  changeSlot: {
    form: text(),
    slot: text(),
    to: change({
      entity: string().strict(),
      required: boolean().strict(),
      several: boolean().strict().nullable(),
      default: defaultSchema(),
      when: conditionSchema().nullable(),
      prompts: localisedSchema(),
    }),
  },
  renameSlot: { form: text(), from: text(), to: text() },
  moveSlot: { form: text(), slot: text(), by: number().strict().integer().required() },
  deleteSlot: { form: text(), slot: text() },
  addDesk: { name: text() },
  changeDesk: {
    name: text(),
    to: change({ description: string().strict().nullable(), handover: emptiable() }),
  },
  deleteDesk: { name: text() },
  changeNoMatch: {
    to: change({
      prompts: localisedSchema(),
      tries: triesSchema(),
      desk: string().strict().nullable(),
      giveUp: localisedSchema(),
    }),
  },
  changeText: { text: string().strict().oneOf(TEXT_NAMES, 'There is no such text.').defined(), to: emptiable() },
  changeSettings: {
    to: change({
      name: string().strict(),
      languages: array().of(text()).min(1),
      timeZone: string().strict(),
      region: string().strict(),
      greeting: localisedSchema(),
      gate: gateSchema,
    }),
  },
};

/** An act as it comes in from a screen. */
export const editSchema = lazy((value: unknown) => {
  const kind = (value as { do?: unknown } | null)?.do;
  const parts = typeof kind === 'string' && Object.hasOwn(ACTS, kind) ? ACTS[kind as Edit['do']] : null;
  if (parts === null) return mixed().test('act', 'There is no such act.', () => false);
  return object({ do: text(), ...parts })
    .noUnknown()
    .strict();
});
