import {
  BUILT_IN_KINDS,
  ENTITY_KINDS,
  HELP_STEPS,
  NAME_PATTERN,
  type EntityKind,
  type HelpStep,
  type JsonLogicRule,
} from '../bot/document.js';
import { MOST } from '../bot/limits.js';
import type { Localised } from '../bot/localised.js';
import { closest } from '../text/distance.js';
import {
  array,
  boolean,
  lazy,
  mixed,
  number,
  object,
  string,
  ValidationError,
  type AnyObject,
  type InferType,
  type Lazy,
  type ObjectShape,
  type Schema,
} from './yup.js';

// What bot files, acts, walkthrough files and requests are put together from. What a check of our own demands is told
// to readers of the JSON Schema by `meta`.

/** Faults that one list or one object tells of itself. */
const MOST_FAULTS = 100;

export const isMap = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const figure = (count: number): string => count.toLocaleString('en-GB');
const tooLong = (most: number): string => `must be at most ${figure(most)} characters long`;
const tooMany = (most: number): string => `has more than ${figure(most)} items; that many are not taken`;

/** What a fault says that stands for others alike, and how many they are. */
const andMore = (times: number) => ({ message: `has ${figure(times)} more faults of this kind`, params: { times } });

const together = (errors: ValidationError[]): true | ValidationError =>
  errors.length === 0 ? true : errors.length === 1 ? errors[0]! : new ValidationError(errors);

/**
 * An object with these parts; others are refused with the closest known one.
 * @param missing what is said where it is no object
 */
export const parts = <Shape extends ObjectShape>(shape: Shape, missing = 'must be an object with named parts') =>
  object<AnyObject, Shape>(shape)
    .strict()
    .typeError(missing)
    .test('known-keys', '', function (value: unknown) {
      if (!isMap(value)) return true;
      const unknown = Object.keys(value).filter((key) => !Object.hasOwn(shape, key));
      const errors = unknown.slice(0, MOST_FAULTS).map((key) => {
        const near = key.length <= MOST.name ? closest(key, Object.keys(shape)) : undefined;
        const shown = key.length <= MOST.name ? key : `${key.slice(0, MOST.name)} …`;
        const path = this.path ? `${this.path}.${shown}` : shown;
        return this.createError({ path, message: `is not known here${near ? `; did you mean "${near}"?` : ''}` });
      });
      const more = unknown.length - errors.length;
      return together(more === 0 ? errors : [...errors, this.createError({ path: this.path, ...andMore(more) })]);
    });

/** The same, where nothing need be said of it. */
export const optionalParts = <Shape extends ObjectShape>(shape: Shape) => parts(shape).optional().default(undefined);

/** The parts to be changed; a part that is not named stays. */
export const change = <Shape extends ObjectShape>(shape: Shape) => parts(shape).required('is missing');

/** @param most the length, in UTF-16 code units */
export const text = (most: number) => string().strict().typeError('must be a text').max(most, tooLong(most));

/** What something is called, wherever it stands; whether there is such a thing is seen later. */
export const name = () => text(MOST.name).defined('is missing');

/** A name that something can be given. */
export const newName = () =>
  text(MOST.name)
    .required('is missing: give it a name')
    .matches(
      NAME_PATTERN,
      ({ value }: { value: unknown }) =>
        `"${String(value)}" is no name: use letters, digits, _ and -, beginning with a letter`,
    )
    .meta({ definition: 'name' });

export const rowId = () => text(MOST.id).matches(/^[\w-]+$/, 'must be an id: letters, digits, _ and -');
export const flag = () => boolean().strict().typeError('must be true or false');
export const wholeNumber = () => number().strict().typeError('must be a number').integer('must be a whole number');

/** A confidence or a lead, 0 to 1. */
export const level = () =>
  number()
    .strict()
    .typeError('must be a number')
    .min(0, 'must be at least 0')
    .max(1, 'must be at most 1')
    .meta({ definition: 'level' });

export const cost = () =>
  number()
    .strict()
    .typeError('must be a number')
    .min(0, 'must be at least 0')
    .max(MOST.cost, `must be at most ${figure(MOST.cost)}`)
    .meta({ definition: 'cost' });

export const tries = () => wholeNumber().min(1, 'must be at least 1').max(9, 'must be at most 9');

/** How many intents are offered at most; more are no choice. */
const MOST_OFFERED = 5;

export const clarify = () =>
  optionalParts({
    most: wholeNumber().min(2, 'must be at least 2').max(MOST_OFFERED, `must be at most ${MOST_OFFERED}`),
    asks: tries(),
    single: string()
      .strict()
      .oneOf(['ask', 'take'] as const, 'must be ask or take'),
    neither: string()
      .strict()
      .oneOf(['noMatch', 'desk'] as const, 'must be noMatch or desk'),
  });

export const helpOrder = () =>
  array()
    .of(
      string<HelpStep>()
        .strict()
        .oneOf(HELP_STEPS, `must be one of ${HELP_STEPS.join(', ')}`)
        .required(),
    )
    .max(9, 'must have at most 9');

export const onNo = () =>
  string()
    .strict()
    .oneOf(['change', 'leave'] as const, 'must be change or leave');

/** @param empty what is said of an empty text; without it a text may be empty */
function textFault(item: unknown, longest: number, empty: string | undefined): string | null {
  if (typeof item !== 'string') return 'must be a text';
  if (item === '' && empty !== undefined) return empty;
  return item.length > longest ? tooLong(longest) : null;
}

/**
 * A list of texts. Its length is looked at before its items, and they are looked through in one go, for there may be
 * tens of thousands.
 */
export function texts(most: number, longest: number, { empty }: { empty?: string } = {}) {
  const isTexts = (value: unknown): value is string[] => Array.isArray(value);
  return mixed<string[]>(isTexts)
    .typeError('must be a list of texts')
    .test('texts', '', function (value) {
      if (value === undefined || value === null) return true;
      if (value.length > most) return this.createError({ message: tooMany(most) });
      const errors: ValidationError[] = [];
      let more = 0;
      value.forEach((item: unknown, index) => {
        const message = textFault(item, longest, empty);
        if (message === null) return;
        if (errors.length === MOST_FAULTS) more++;
        else errors.push(this.createError({ path: `${this.path}[${index}]`, message }));
      });
      return together(more === 0 ? errors : [...errors, this.createError(andMore(more))]);
    })
    .meta({
      schema: {
        type: 'array',
        maxItems: most,
        items: { type: 'string', maxLength: longest, ...(empty === undefined ? {} : { minLength: 1 }) },
      },
    });
}

/**
 * A list whose length is looked at before its items.
 * @param options `some`: whether it must be there and not be empty; `tooMany`: what is said of a longer one
 */
export function listOf<Item extends Schema | Lazy<unknown>>(
  item: Item,
  most: number,
  { some = false, tooMany: refusal = tooMany(most) }: { some?: boolean; tooMany?: string } = {},
) {
  const any = array()
    .strict()
    .typeError('must be a list')
    .of(item as Schema);
  const whole = some ? any.min(1, 'must not be empty').defined('is missing') : any;
  const refused = mixed().test('most', refusal, () => false);
  return lazy((value: unknown) => (Array.isArray(value) && value.length > most ? refused : whole)).meta({
    items: item,
    most,
    some,
  }) as unknown as Lazy<InferType<Item>[]>;
}

const TEXT_MESSAGE = 'must be a text, a list of texts, or either by language';

/** What is wrong with a text by variants and languages; `null` where nothing is. */
function localisedFault(value: unknown): string | null {
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

/** A text by variants and languages. */
export const localised = () =>
  mixed<Localised>((value): value is Localised => typeof value === 'string' || typeof value === 'object')
    .typeError(TEXT_MESSAGE)
    .test('localised', '', function (value) {
      const fault = value === undefined || value === null ? null : localisedFault(value);
      return fault === null || this.createError({ message: fault });
    })
    .meta({ definition: 'text' });

/** A JsonLogic rule. */
export const condition = () =>
  mixed<JsonLogicRule>((value): value is JsonLogicRule => typeof value === 'boolean' || isMap(value))
    .typeError('must be a condition in JsonLogic')
    .meta({ schema: { type: ['object', 'boolean'] }, description: "JsonLogic over the form's values." });

/** The value a slot takes when the customer does not mind. */
export const defaultValue = () =>
  mixed<string | number>(
    (value): value is string | number =>
      typeof value === 'number' || (typeof value === 'string' && value.length <= MOST.value),
  )
    .typeError('must be a text or a number')
    .meta({ schema: { type: ['string', 'number'] }, description: 'Taken when the customer does not mind.' });

/** A kind of entity, with the nearest named where there is none of that name. */
export const entityKind = () =>
  mixed<EntityKind>((value): value is EntityKind => typeof value === 'string')
    .typeError('must be a text')
    .test('kind', '', function (value) {
      if (value === undefined || ENTITY_KINDS.includes(value)) return true;
      const near = closest((value as string).slice(0, MOST.name), ENTITY_KINDS);
      const known = near ? `did you mean "${near}"?` : `use list, pattern, free, ${BUILT_IN_KINDS.join(', ')}`;
      return this.createError({ message: `there is no kind "${value as string}"; ${known}` });
    })
    .meta({ schema: { enum: [...ENTITY_KINDS] } });

/** A row with the words it had when the person acted, so that nothing is lost that somebody else has written since. */
export const row = () =>
  parts({ id: rowId().defined('is missing'), was: text(MOST.utterance * 2).defined('is missing') });
export const rows = () => listOf(row(), MOST.lines, { some: true });
