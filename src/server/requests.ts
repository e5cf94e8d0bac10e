import { readAct, type BotAct } from '../core/bot/acts/index.js';
import { DEEPEST, nestingOf, reservedKey } from '../core/formats/nesting.js';
import { numberOfFaults, type Fault } from '../core/shape/fault.js';
import { InputError } from './errors.js';

/** What a fault says, at most, in UTF-16 code units. */
const LONGEST_FAULT = 400;

export const shortened = (words: string): string =>
  words.length > LONGEST_FAULT ? `${words.slice(0, LONGEST_FAULT)} …` : words;

/** The refusal of a request whose parts are not as they must be. */
export function misshapen(faults: readonly Fault[]): InputError {
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

/** Reads the text of an act. @throws InputError */
export function actOf(text: string): BotAct {
  const result = readAct(valueOf(text));
  if (!result.ok) throw misshapen(result.faults);
  return result.act;
}
