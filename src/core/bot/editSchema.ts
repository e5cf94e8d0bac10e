import { array, lazy, mixed, number, object, string, type Schema } from 'yup';
import type { Edit } from './edit.js';
import { deskSchema, entitySchema, formSchema, gateSchema, localisedSchema, noMatchSchema } from './schema.js';

const text = () => string().strict().defined();
const row = object({ index: number().strict().integer().min(0).required(), was: text() })
  .noUnknown()
  .strict();
const rows = array().of(row).min(1).required();
const names = array().of(text()).min(1).required();
const lines = array().of(text()).min(1).max(50_000, 'At most 50,000 lines at once.').required();

const ACTS: Record<Edit['do'], Record<string, Schema>> = {
  addIntent: { name: text(), description: string().strict() },
  changeIntent: {
    name: text(),
    to: object({
      name: string().strict(),
      description: string().strict().nullable(),
      form: string().strict().nullable(),
      reply: localisedSchema().nullable(),
      desk: string().strict().nullable(),
    })
      .noUnknown()
      .required(),
  },
  deleteIntents: { names },
  addUtterances: { intent: text(), at: number().strict().integer().min(0), utterances: lines },
  changeUtterance: { intent: text(), row: row.required(), to: text() },
  deleteUtterances: { intent: text(), rows },
  moveUtterances: { intent: text(), rows, to: text() },
  addEntity: { entity: entitySchema.required() },
  changeEntity: { name: text(), to: entitySchema.required() },
  addValues: { entity: text(), values: lines },
  deleteEntity: { name: text() },
  addForm: { name: text(), intent: string().strict() },
  changeForm: { name: text(), to: formSchema.required() },
  renameSlot: { form: text(), from: text(), to: text() },
  deleteForm: { name: text() },
  changeDesks: { desks: array().of(deskSchema).required() },
  changeSettings: {
    to: object({
      name: string().strict(),
      languages: array().of(text()).min(1),
      timeZone: string().strict(),
      region: string().strict(),
      greeting: localisedSchema(),
      gate: gateSchema,
      noMatch: noMatchSchema,
    })
      .noUnknown()
      .required(),
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
