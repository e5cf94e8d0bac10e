import { readAct, type BotAct } from '../core/bot/acts/index.js';
import { DEEPEST, nestingOf, reservedKey } from '../core/formats/nesting.js';
import { check, numberOfFaults, type Fault } from '../core/shape/fault.js';
import type { InferType, ISchema, Schema } from '../core/shape/yup.js';
import { LARGE_BODIES } from './bodies.js';
import { InputError } from './errors.js';

/** What a fault says, at most, in UTF-16 code units. */
const LONGEST_FAULT = 400;

export const shortened = (words: string): string =>
  words.length > LONGEST_FAULT ? `${words.slice(0, LONGEST_FAULT)} …` : words;

/** The refusal of a request whose parts are not as they must be. */
function misshapen(faults: readonly Fault[]): InputError {
  const told = faults.slice(0, 3).map(({ path, message }) => shortened(`${path} ${message}`.trim()));
  const others = numberOfFaults(faults) - told.length;
  const more = others > 0 ? `; and ${others.toLocaleString('en-GB')} more` : '';
  return new InputError(`The request is not as it must be: ${told.join('; ')}${more}.`, faults);
}

/** Reads the text of a JSON body, whatever its shape. @throws InputError */
export function valueOf(text: string): unknown {
  if (text.trim() === '') throw new InputError('The request is empty.');
  if (nestingOf(text) > DEEPEST) throw new InputError(`The request is nested more than ${DEEPEST} deep.`);
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new InputError('The request cannot be read as JSON.');
  }
  const reserved = reservedKey(value);
  if (reserved !== null) throw new InputError(`The request uses the name “${reserved}”, which cannot be used.`);
  return value;
}

/** A value held against a shape. @throws InputError */
export function shaped<S extends ISchema<unknown>>(schema: S, value: unknown): InferType<S> {
  const checked = check(schema as unknown as Schema<InferType<S>>, value);
  if (!checked.ok) throw misshapen(checked.faults);
  return checked.value;
}

/** Bodies of more values, or of more UTF-16 code units, take long enough to read that others would wait. */
const MANY_VALUES = 1000;
const LONG_BODY = 128 * 1024;

/** Whether the text of a body holds so much that it is to be read beside the thread that serves. */
export function isLarge(text: string): boolean {
  if (text.length > LONG_BODY) return true;
  let values = 1;
  let quoted = false;
  for (let at = 0; at < text.length; at++) {
    const sign = text.charCodeAt(at);
    if (quoted && sign === 0x5c) at++;
    else if (sign === 0x22) quoted = !quoted;
    else if (!quoted && sign === 0x2c) values++;
  }
  return values > MANY_VALUES;
}

/** The most values of a body of rows; more are not looked at. */
const MOST_VALUES = 100_000;

function countValues(value: unknown): number {
  const waiting: unknown[] = [value];
  let count = 0;
  while (waiting.length > 0) {
    const next = waiting.pop();
    count++;
    if (count > MOST_VALUES) return count;
    if (typeof next === 'object' && next !== null) for (const part of Object.values(next)) waiting.push(part);
  }
  return count;
}

/** What bodies of rows hold, by their names. */
export type LargeBody = { [Name in keyof typeof LARGE_BODIES]: InferType<(typeof LARGE_BODIES)[Name]> };

/** Reads the text of a body of rows. @throws InputError */
export function rowsOf<Name extends keyof LargeBody>(name: Name, text: string): LargeBody[Name] {
  const value = valueOf(text);
  if (countValues(value) > MOST_VALUES)
    throw new InputError('The request holds more than 100,000 values. Divide it, and send the parts.');
  const schema: unknown = LARGE_BODIES[name];
  return shaped(schema as ISchema<LargeBody[Name]>, value);
}

/** Reads the text of an act. @throws InputError */
export function actOf(text: string): BotAct {
  const result = readAct(valueOf(text));
  if (!result.ok) throw misshapen(result.faults);
  return result.act;
}
