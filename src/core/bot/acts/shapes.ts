import {
  array,
  boolean,
  lazy,
  mixed,
  number,
  object,
  string,
  type AnyObject,
  type InferType,
  type Lazy,
  type ObjectShape,
  type Schema,
} from '../yup.js';
import { MOST } from '../limits.js';
import type { JsonLogicRule, Localised } from '../document.js';
import { isMap, localisedFault, TEXT_MESSAGE } from '../schema.js';

/** The parts of an act; others are refused. */
export const parts = <Shape extends ObjectShape>(shape: Shape) => object<AnyObject, Shape>(shape).noUnknown().strict();

/** The parts to be changed; a part that is not named stays. */
export const change = <Shape extends ObjectShape>(shape: Shape) => parts(shape).required('is missing');

const atMost = (length: number) => `must be at most ${length.toLocaleString('en-GB')} characters long`;

/** @param most the length, in UTF-16 code units */
export const text = (most: number = MOST.wording) =>
  string().strict().typeError('must be a text').max(most, atMost(most));

export const name = () => text(MOST.name).defined('is missing');
export const rowId = () => text(MOST.id).matches(/^[\w-]+$/, 'must be an id: letters, digits, _ and -');
export const flag = () => boolean().strict().typeError('must be true or false');
export const wholeNumber = () => number().strict().typeError('must be a number').integer('must be a whole number');

/**
 * A list. Its length is looked at before its items, and a list of one kind of text is looked through in one go: lists
 * may have tens of thousands.
 */
export function texts(most: number, longest: number) {
  const isTexts = (value: unknown): value is string[] => Array.isArray(value);
  return mixed<string[]>(isTexts)
    .typeError('must be a list of texts')
    .test('texts', '', function (value) {
      if (value === undefined || value === null) return true;
      if (value.length > most) {
        return this.createError({ message: `must be at most ${most.toLocaleString('en-GB')} lines at once` });
      }
      const bad = value.findIndex((item: unknown) => typeof item !== 'string' || item.length > longest);
      if (bad === -1) return true;
      const message = typeof value[bad] === 'string' ? atMost(longest) : 'must be a text';
      return this.createError({ path: `${this.path}[${bad}]`, message });
    })
    .meta({ schema: { type: 'array', maxItems: most, items: { type: 'string', maxLength: longest } } });
}

/** A list whose length is looked at before its items. */
export function listOf<Item extends Schema>(item: Item, most: number) {
  const whole = array().strict().typeError('must be a list').of(item).min(1, 'must not be empty').defined('is missing');
  const message = `must be at most ${most.toLocaleString('en-GB')} at once`;
  const tooMany = mixed().test('most', message, () => false);
  return lazy((value: unknown) => (Array.isArray(value) && value.length > most ? tooMany : whole)) as unknown as Lazy<
    InferType<Item>[]
  >;
}

/** A text by variants and languages. */
export const localised = () =>
  mixed<Localised>((value): value is Localised => typeof value === 'string' || typeof value === 'object')
    .typeError(TEXT_MESSAGE)
    .test('localised', '', function (value) {
      const fault = localisedFault(value);
      return fault === null || this.createError({ message: fault });
    })
    .meta({ definition: 'text' });

/** A JsonLogic rule. */
export const condition = () =>
  mixed<JsonLogicRule>((value): value is JsonLogicRule => typeof value === 'boolean' || isMap(value))
    .typeError('must be a condition in JsonLogic')
    .meta({ schema: { description: 'JsonLogic', type: ['object', 'boolean'] } });

/** The value a slot takes when the customer does not mind. */
export const defaultValue = () =>
  mixed<string | number>(
    (value): value is string | number =>
      typeof value === 'number' || (typeof value === 'string' && value.length <= MOST.value),
  )
    .typeError('must be a text or a number')
    .meta({ schema: { type: ['string', 'number'] } });

/** A row with the words it had when the person acted, so that nothing is lost that somebody else has written since. */
export const row = () =>
  parts({ id: rowId().defined('is missing'), was: text(MOST.utterance * 2).defined('is missing') });
export const rows = () => listOf(row(), MOST.lines);
