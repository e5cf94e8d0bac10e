import { array, boolean, lazy, mixed, number, object, string, ValidationError, type Schema } from './yup.js';
import { TEXT_NAMES } from '../say/texts.js';
import { BUILT_IN_KINDS, ENTITY_KINDS, NAME_PATTERN } from './document.js';
import { closest } from '../text/distance.js';
import { MOST } from './limits.js';

/** A fault in a file: where it is and a sentence about it. */
export interface Fault {
  /** E.g. `forms[0].slots[2].entity`; empty for the whole. */
  path: string;
  message: string;
}

export const TEXT_MESSAGE = 'must be a text, a list of texts, or either by language';

export const isMap = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** What is wrong with a text by variants and languages; `null` where nothing is. */
export function localisedFault(value: unknown): string | null {
  if (value === undefined || value === null) return null;
  const byLanguage: unknown[] = isMap(value) ? Object.values(value) : [value];
  if (byLanguage.length > MOST.languages) return `must be in at most ${MOST.languages} languages`;
  for (const own of byLanguage) {
    const wordings: unknown[] = Array.isArray(own) ? own : [own];
    if (wordings.length > MOST.variants) return `must have at most ${MOST.variants} variants`;
    for (const wording of wordings) {
      if (typeof wording !== 'string') return TEXT_MESSAGE;
      if (wording.length > MOST.wording) return tooLong(MOST.wording);
    }
  }
  return null;
}

const localisedSchema = () =>
  mixed().test('localised', '', function (value) {
    const fault = localisedFault(value);
    return fault === null || this.createError({ message: fault });
  });

const tooLong = (most: number): string => `must be at most ${most.toLocaleString('en-GB')} characters long`;

const text = (most: number = MOST.description) =>
  string().strict().typeError('must be a text').max(most, tooLong(most));

const name = () =>
  text(MOST.name)
    .required('is missing: give it a name')
    .matches(
      NAME_PATTERN,
      ({ value }: { value: unknown }) =>
        `"${String(value)}" is no name: use letters, digits, _ and -, beginning with a letter`,
    );

export const level = () =>
  number().strict().typeError('must be a number').min(0, 'must be at least 0').max(1, 'must be at most 1');

const flag = () => boolean().strict().typeError('must be true or false');

/** A list whose length is looked at before its items. */
const list = <T extends Schema>(of: T, most: number) => {
  const whole = array().strict().typeError('must be a list').of(of);
  const message = `has more than ${most.toLocaleString('en-GB')} items; that many are not taken`;
  const tooMany = mixed().test('most', message, () => false);
  return lazy((value: unknown) => (Array.isArray(value) && value.length > most ? tooMany : whole)) as unknown as Schema;
};

/** A list of texts, looked through in one go, for it may be long; at most the first faults are told. */
const textList = (longest: number, most: number, empty: string) =>
  mixed().test('texts', '', function (value: unknown) {
    if (value === undefined) return true;
    if (!Array.isArray(value)) return this.createError({ message: 'must be a list' });
    if (value.length > most) {
      return this.createError({
        message: `has more than ${most.toLocaleString('en-GB')} items; that many are not taken`,
      });
    }
    const errors: ValidationError[] = [];
    value.forEach((item: unknown, index) => {
      const message =
        typeof item !== 'string'
          ? 'must be a text'
          : item === ''
            ? empty
            : item.length > longest
              ? tooLong(longest)
              : null;
      if (message !== null && errors.length < MOST_FAULTS) {
        errors.push(this.createError({ path: `${this.path}[${index}]`, message }));
      }
    });
    return errors.length === 0 ? true : errors.length === 1 ? errors[0]! : new ValidationError(errors);
  });

/** Faults that one list tells of itself. */
const MOST_FAULTS = 100;

/** Refuses unknown keys with the closest known one. */
function closed(fields: Record<string, Schema>, missing = 'must be an object with named parts') {
  return object(fields)
    .strict()
    .typeError(missing)
    .test('known-keys', '', function (value) {
      if (!isMap(value)) return true;
      const unknown = Object.keys(value).filter((key) => !Object.hasOwn(fields, key));
      if (unknown.length === 0) return true;
      const errors = unknown.slice(0, MOST_FAULTS).map((key) => {
        const near = key.length <= MOST.name ? closest(key, Object.keys(fields)) : undefined;
        const shown = key.length <= MOST.name ? key : `${key.slice(0, MOST.name)} …`;
        const path = this.path ? `${this.path}.${shown}` : shown;
        return this.createError({ path, message: `is not known here${near ? `; did you mean "${near}"?` : ''}` });
      });
      return errors.length === 1 ? errors[0]! : new ValidationError(errors);
    });
}

const listValue = lazy((value: unknown) =>
  typeof value === 'string'
    ? text(MOST.value).required('is empty')
    : closed({
        value: text(MOST.value).required('is missing: give the value its main form'),
        synonyms: textList(MOST.value, MOST.synonyms, 'is empty'),
      }),
);

export const entityKind = () =>
  text().test('kind', '', function (value) {
    if (value === undefined || (ENTITY_KINDS as readonly string[]).includes(value)) return true;
    const near = closest(value, ENTITY_KINDS);
    return this.createError({
      message: `there is no kind "${value}"${near ? `; did you mean "${near}"?` : `; use list, pattern, free, ${BUILT_IN_KINDS.join(', ')}`}`,
    });
  });

const entitySchema = closed({
  name: name(),
  kind: entityKind().required('is missing: say list, pattern, free or a built-in kind'),
  misspellings: flag(),
  values: list(listValue as unknown as Schema, MOST.values),
  pattern: text(MOST.pattern),
});

const intent = closed({
  name: name(),
  description: text(),
  called: localisedSchema(),
  offered: flag(),
  form: text(MOST.name),
  reply: localisedSchema(),
  desk: text(MOST.name),
  utterances: textList(MOST.utterance * 2, MOST.utterances, 'is empty: write the message or take the line away'),
});

const conditionSchema = () =>
  mixed().test(
    'when',
    'must be a condition in JsonLogic',
    (value) => value === undefined || value === null || typeof value === 'boolean' || isMap(value),
  );

/** The value a slot takes when the customer does not mind. */
const defaultSchema = () =>
  mixed().test(
    'default',
    'must be a text or a number',
    (value) => value === undefined || value === null || typeof value === 'string' || typeof value === 'number',
  );

export const onNo = () =>
  string()
    .strict()
    .oneOf(['change', 'leave'] as const, 'must be change or leave');

/** A bot's own wordings of the engine's sentences. */
const textsSchema = () => closed(Object.fromEntries(TEXT_NAMES.map((key) => [key, localisedSchema()])));

const slotSchema = closed({
  name: name(),
  entity: text(MOST.name).required('is missing: name the entity whose values fill this slot'),
  required: flag(),
  several: flag(),
  default: defaultSchema(),
  when: conditionSchema(),
  prompts: localisedSchema(),
});

const formSchema = closed({
  name: name(),
  slots: list(slotSchema, MOST.slots),
  confirm: localisedSchema(),
  decline: localisedSchema(),
  onNo: onNo(),
  done: localisedSchema(),
  desk: text(MOST.name),
});

const deskSchema = closed({ name: name(), description: text(), handover: localisedSchema() });

const gateSchema = closed({ accept: level(), ask: level(), lead: level() });

export const tries = () =>
  number()
    .strict()
    .typeError('must be a number')
    .integer('must be a whole number')
    .min(1, 'must be at least 1')
    .max(9, 'must be at most 9');

const noMatchSchema = closed({
  prompts: localisedSchema(),
  tries: tries(),
  desk: text(MOST.name),
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
    name: text(MOST.name).required('is missing: give the bot a name'),
    languages: textList(MOST.name, MOST.languages, 'is empty'),
    timeZone: text(MOST.name),
    region: text(MOST.name).matches(/^[A-Z]{2}$/, 'must be a country code of two capital letters, such as GB'),
    greeting: localisedSchema(),
    entities: list(entitySchema, MOST.entities),
    intents: list(intent, MOST.intents),
    forms: list(formSchema, MOST.forms),
    desks: list(deskSchema, MOST.desks),
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
