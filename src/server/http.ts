import { error as httpError, json } from '@sveltejs/kit';
import { ValidationError, type Schema } from 'yup';
import { EditError } from '../core/bot/edit.js';
import type { Fault } from '../core/bot/schema.js';
import { NulCharacterError } from './database/driver.js';
import { NoSuchBotError } from './repositories/bots.js';

/** The largest upload that is read, in bytes. */
const LARGEST_UPLOAD = 25 * 1024 * 1024;

/** Something that was sent is not as it must be. */
export class InputError extends Error {
  constructor(
    message: string,
    readonly faults: Fault[] = [],
  ) {
    super(message);
  }
}

/** What was asked for is not there. */
export class NotFoundError extends Error {}

/** What a refused request is answered with. */
export interface Refusal {
  message: string;
  faults: Fault[];
}

function refusal(error: unknown): { status: number; body: Refusal } | null {
  if (error instanceof NoSuchBotError || error instanceof NotFoundError) {
    return { status: 404, body: { message: error.message, faults: [] } };
  }
  if (error instanceof EditError || error instanceof InputError) {
    return { status: 422, body: { message: error.message, faults: error.faults } };
  }
  if (error instanceof NulCharacterError) return { status: 422, body: { message: error.message, faults: [] } };
  return null;
}

/** Answers a request with data as JSON; errors a person can cause become a sentence with the fitting status. */
export async function answer(work: () => Promise<unknown>): Promise<Response> {
  try {
    return json((await work()) ?? { ok: true });
  } catch (error) {
    const refused = refusal(error);
    if (!refused) throw error;
    return json(refused.body, { status: refused.status });
  }
}

/** The same for the load of a page: errors a person can cause become an error page. */
export async function loading<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    const refused = refusal(error);
    if (!refused) throw error;
    httpError(refused.status, refused.body.message);
  }
}

/** Reads a number from the path. @throws NotFoundError */
export function pathNumber(part: string | undefined): number {
  if (part === undefined || !/^[1-9]\d{0,14}$/.test(part)) throw new NotFoundError('There is nothing at this address.');
  return Number(part);
}

/** Reads an upload as text, piece by piece. @throws InputError if it is too large or no text */
export async function readText(request: Request, limit = LARGEST_UPLOAD): Promise<string> {
  const tooLarge = () =>
    new InputError(`The file is larger than ${Math.round(limit / 1024 / 1024)} MB. Divide it and bring in the parts.`);
  if (Number(request.headers.get('content-length') ?? 0) > limit) throw tooLarge();
  const decoder = new TextDecoder('utf-8', { fatal: true });
  let text = '';
  let size = 0;
  try {
    for await (const chunk of (request.body ?? []) as AsyncIterable<Uint8Array>) {
      size += chunk.byteLength;
      if (size > limit) throw tooLarge();
      text += decoder.decode(chunk, { stream: true });
    }
    return text + decoder.decode();
  } catch (error) {
    if (error instanceof TypeError)
      throw new InputError('The file is not text in UTF-8. Save it as UTF-8 and bring it in again.');
    throw error;
  }
}

/** Largest body of an act, in bytes: pasting fifty thousand lines fits. */
const LARGEST_ACT = 8 * 1024 * 1024;

/** Reads a JSON body of a known shape. @throws InputError */
export async function readJson<T>(
  request: Request,
  schema: { validateSync: (value: unknown, options: object) => unknown } | Schema,
): Promise<T> {
  const text = await readText(request, LARGEST_ACT);
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new InputError('The request cannot be read as JSON.');
  }
  try {
    return schema.validateSync(value, { abortEarly: false }) as T;
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const faults = (error.inner.length > 0 ? error.inner : [error]).map((fault) => ({
      path: fault.path ?? '',
      message: fault.message,
    }));
    throw new InputError(
      `The request is not as it must be: ${faults.map((fault) => `${fault.path} ${fault.message}`.trim()).join('; ')}.`,
      faults,
    );
  }
}
