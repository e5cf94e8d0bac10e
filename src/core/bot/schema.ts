import { array, boolean, lazy, mixed, number, object, string, ValidationError, type Schema } from 'yup';
import { TEXT_NAMES } from '../say/texts.js';
import { BUILT_IN_KINDS, ENTITY_KINDS, NAME_PATTERN } from './document.js';
import { closest } from '../text/distance.js';

/** A fault in a file: where it is and a sentence about it. */
export interface Fault {
  /** E.g. `forms[0].slots[2].entity`; empty for the whole. */
  path: string;
  message: string;
}

export const TEXT_MESSAGE = 'must be a text, a list of texts, or either by language';

const isText = (value: unknown): boolean => typeof value === 'string';
const isTextOrList = (value: unknown): boolean => isText(value) || (Array.isArray(value) && value.every(isText));
const isMap = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** A text by variants and languages. */
export const isLocalised = (value: unknown): boolean =>
  value === undefined || isTextOrList(value) || (isMap(value) && Object.values(value).every(isTextOrList));

export const localisedSchema = () => mixed().test('localised', TEXT_MESSAGE, isLocalised);

const text = () => string().strict().typeError('must be a text');

const name = () =>
  text()
    .required('is missing: give it a name')
    .matches(
      NAME_PATTERN,
      ({ value }: { value: unknown }) =>
        `"${String(value)}" is no name: use letters, digits, _ and -, beginning with a letter`,
    );

const level = () =>
  number().strict().typeError('must be a number').min(0, 'must be at least 0').max(1, 'must be at most 1');

const flag = () => boolean().strict().typeError('must be true or false');

const list = <T extends Schema>(of: T) => array().strict().typeError('must be a list').of(of);

/** Refuses unknown keys with the closest known one. */
function closed(fields: Record<string, Schema>, missing = 'must be an object with named parts') {
  return object(fields)
    .strict()
    .typeError(missing)
    .test('known-keys', '', function (value) {
      if (!isMap(value)) return true;
      const unknown = Object.keys(value).filter((key) => !Object.hasOwn(fields, key));
      if (unknown.length === 0) return true;
      const errors = unknown.map((key) => {
        const near = closest(key, Object.keys(fields));
        const path = this.path ? `${this.path}.${key}` : key;
        return this.createError({ path, message: `is not known here${near ? `; did you mean "${near}"?` : ''}` });
      });
      return errors.length === 1 ? errors[0]! : new ValidationError(errors);
    });
}

const listValue = lazy((value: unknown) =>
  typeof value === 'string'
    ? text().required()
    : closed({
        value: text().required('is missing: give the value its main form'),
        synonyms: list(text().required('is empty')),
      }),
);

export const entityKindSchema = () =>
  text().test('kind', '', function (value) {
    if (value === undefined || (ENTITY_KINDS as readonly string[]).includes(value)) return true;
    const near = closest(value, ENTITY_KINDS);
    return this.createError({
      message: `there is no kind "${value}"${near ? `; did you mean "${near}"?` : `; use list, pattern, free, ${BUILT_IN_KINDS.join(', ')}`}`,
    });
  });

export const entitySchema = closed({
  name: name(),
  kind: entityKindSchema().required('is missing: say list, pattern, free or a built-in kind'),
  misspellings: flag(),
  values: list(listValue as unknown as Schema),
  pattern: text(),
});

const intent = closed({
  name: name(),
  description: text(),
  called: localisedSchema(),
  offered: flag(),
  form: text(),
  reply: localisedSchema(),
  desk: text(),
  utterances: list(text().required('is empty: write the message or take the line away')),
});

export const conditionSchema = () =>
  mixed().test(
    'when',
    'must be a condition in JsonLogic',
    (value) => value === undefined || value === null || typeof value === 'boolean' || isMap(value),
  );

/** The value a slot takes when the customer does not mind. */
export const defaultSchema = () =>
  mixed().test(
    'default',
    'must be a text or a number',
    (value) => value === undefined || value === null || typeof value === 'string' || typeof value === 'number',
  );

export const onNoSchema = () => text().oneOf(['change', 'leave'], 'must be change or leave');

/** A bot's own wordings of the engine's sentences. */
const textsSchema = () => closed(Object.fromEntries(TEXT_NAMES.map((key) => [key, localisedSchema()])));

export const slotSchema = closed({
  name: name(),
  entity: text().required('is missing: name the entity whose values fill this slot'),
  required: flag(),
  several: flag(),
  default: defaultSchema(),
  when: conditionSchema(),
  prompts: localisedSchema(),
});

const formSchema = closed({
  name: name(),
  slots: list(slotSchema),
  confirm: localisedSchema(),
  decline: localisedSchema(),
  onNo: onNoSchema(),
  done: localisedSchema(),
  desk: text(),
});

const deskSchema = closed({ name: name(), description: text(), handover: localisedSchema() });

export const gateSchema = closed({ accept: level(), ask: level(), lead: level() });

export const triesSchema = () =>
  number()
    .strict()
    .typeError('must be a number')
    .integer('must be a whole number')
    .min(1, 'must be at least 1')
    .max(9, 'must be at most 9');

const noMatchSchema = closed({
  prompts: localisedSchema(),
  tries: triesSchema(),
  desk: text(),
  giveUp: localisedSchema(),
});

/** The shape of a bot file. References between its parts are checked by `validateReferences`. */
const botSchema = closed(
  {
    reedGate: number()
      .strict()
      .typeError('must be the number 1')
      .required('is missing: a bot file begins with reedGate: 1')
      .oneOf([1], 'is a version this program does not read; it reads 1'),
    name: text().required('is missing: give the bot a name'),
    languages: list(text().required()),
    timeZone: text(),
    region: text().matches(/^[A-Z]{2}$/, 'must be a country code of two capital letters, such as GB'),
    greeting: localisedSchema(),
    entities: list(entitySchema),
    intents: list(intent),
    forms: list(formSchema),
    desks: list(deskSchema),
    gate: gateSchema,
    noMatch: noMatchSchema,
    texts: textsSchema(),
  },
  'a bot file is one object with reedGate, name, intents and so on',
);

/** All shape faults of a value read from a bot file. */
export function shapeFaults(value: unknown): Fault[] {
  if (value === null || value === undefined) return [{ path: '', message: 'the file is empty' }];
  try {
    botSchema.validateSync(value, { abortEarly: false });
    return [];
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const single = error.inner.length > 0 ? error.inner : [error];
    return single
      .flatMap((fault) => (fault.inner.length > 0 ? fault.inner : [fault]))
      .map((fault) => ({ path: fault.path ?? '', message: fault.message }));
  }
}
