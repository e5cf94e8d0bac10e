import { error as httpError, json, type RequestEvent } from '@sveltejs/kit';
import { ActError } from '../core/bot/acts/index.js';
import { numberOfFaults, type Fault } from '../core/shape/fault.js';
import type { InferType, ISchema } from '../core/shape/yup.js';
import { application, type Application } from './application.js';
import { permits, SOMEONE, type Context, type Permission } from './context.js';
import { NulCharacterError } from './database/driver.js';
import { ForbiddenError, InputError, NotFoundError, TooLongError } from './errors.js';
import { NoSuchBotError, StaleError } from './repositories/bots.js';
import { StoredError } from './repositories/stored.js';
import { isLarge, shaped, shortened, valueOf } from './requests.js';
import { NoModelError } from './services/models.js';
import { troubleOf } from './trouble.js';

export { NotFoundError } from './errors.js';

/** The largest upload that is read, in bytes. */
const LARGEST_UPLOAD = 25 * 1024 * 1024;

/** What a refused request is answered with. */
export interface Refusal {
  message: string;
  /** The first of them. */
  faults: Fault[];
  /** How many there are. */
  number: number;
}

/** Faults that are sent; a file may have hundreds of thousands. */
const MOST_FAULTS = 100;
export const faultsShown = (faults: readonly Fault[]): Fault[] =>
  faults.slice(0, MOST_FAULTS).map(({ path, message }) => ({ path: shortened(path), message: shortened(message) }));

const refused = (error: Error, faults: readonly Fault[] = [], number = numberOfFaults(faults)): Refusal => ({
  message: shortened(error.message),
  faults: faultsShown(faults),
  number,
});

function refusal(error: unknown): { status: number; body: Refusal } | null {
  if (error instanceof NoSuchBotError || error instanceof NotFoundError) return { status: 404, body: refused(error) };
  if (error instanceof ForbiddenError) return { status: 403, body: refused(error) };
  if (error instanceof StoredError) return { status: 500, body: refused(error) };
  if (error instanceof NoModelError || error instanceof TooLongError) return { status: 503, body: refused(error) };
  if (error instanceof StaleError) return { status: 409, body: refused(error) };
  if (error instanceof ActError) return { status: 422, body: refused(error, error.faults) };
  if (error instanceof InputError) return { status: 422, body: refused(error, error.faults, error.number) };
  if (error instanceof NulCharacterError) return { status: 422, body: refused(error) };
  const trouble = troubleOf(error);
  return trouble === null ? null : { status: 503, body: refused(new Error(trouble)) };
}

type Work<T> = (app: Application, context: Context) => Promise<T>;

/** Opens the application to whoever comes, if that is permitted. @throws ForbiddenError */
async function enter<T>({ locals, request }: RequestEvent, permission: Permission, work: Work<T>): Promise<T> {
  const app = await application();
  const actor = locals.person === null ? SOMEONE : { id: locals.person };
  if (!permits(actor, permission)) throw new ForbiddenError();
  const log = app.log.child({ requestNumber: locals.requestNumber });
  const window = request.headers.get('x-window');
  return work(app, { actor, window, log, now: () => new Date().toISOString() });
}

/** Answers a request with data as JSON; errors a person can cause become a sentence with the fitting status. */
export async function answer(event: RequestEvent, permission: Permission, work: Work<unknown>): Promise<Response> {
  try {
    return json((await enter(event, permission, work)) ?? { ok: true });
  } catch (error) {
    const told = refusal(error);
    if (!told) throw error;
    return json(told.body, { status: told.status });
  }
}

/** The same for the load of a page: errors a person can cause become an error page. */
export async function loading<T>(event: RequestEvent, permission: Permission, work: Work<T>): Promise<T> {
  try {
    return await enter(event, permission, work);
  } catch (error) {
    const told = refusal(error);
    if (!told) throw error;
    httpError(told.status, told.body.message);
  }
}

/** Reads a number from the path. @throws NotFoundError */
export function pathNumber(part: string | undefined): number {
  if (part === undefined || !/^[1-9]\d{0,14}$/.test(part)) throw new NotFoundError('There is nothing at this address.');
  return Number(part);
}

/** Reads which row a page begins at; the first where that is not said. @throws InputError */
export function rowNumber(from: string | null): number {
  if (from === null) return 0;
  if (!/^\d{1,9}$/.test(from)) throw new InputError('A page begins at a row, which is a whole number.');
  return Number(from);
}

/**
 * Reads an upload as text, piece by piece. What is left of one that is refused is not taken back from its sender, who
 * would hear of no answer: the server reads it away.
 * @throws InputError if it is too large or no text
 */
export async function readText(request: Request, limit = LARGEST_UPLOAD): Promise<string> {
  const { headers } = request;
  const tooLarge = () =>
    new InputError(`The file is larger than ${Math.round(limit / 1024 / 1024)} MB. Divide it and bring in the parts.`);
  const length = Number(headers.get('content-length') ?? 0);
  if (headers.get('content-type') === null && (length > 0 || headers.has('transfer-encoding')))
    throw new InputError(
      'The request does not say of what type it is. Send it with a Content-Type, such as application/json.',
    );
  if (length > limit) throw tooLarge();
  const decoder = new TextDecoder('utf-8', { fatal: true });
  const reader = request.body?.getReader();
  let text = '';
  let size = 0;
  try {
    for (let part = await reader?.read(); part?.done === false; part = await reader!.read()) {
      size += part.value.byteLength;
      if (size > limit) throw tooLarge();
      text += decoder.decode(part.value, { stream: true });
    }
    return text + decoder.decode();
  } catch (error) {
    if (error instanceof TypeError)
      throw new InputError('The file is not text in UTF-8. Save it as UTF-8 and bring it in again.');
    throw error;
  } finally {
    reader?.releaseLock();
  }
}

/** Largest body of an act, in bytes: pasting fifty thousand lines fits. */
const LARGEST_ACT = 8 * 1024 * 1024;

/** Reads the text of a body that no file comes in. @throws InputError */
export const readBody = (request: Request): Promise<string> => readText(request, LARGEST_ACT);

/** Reads a small JSON body of a known shape. @throws InputError */
export async function readJson<S extends ISchema<unknown>>(request: Request, schema: S): Promise<InferType<S>> {
  const text = await readBody(request);
  if (isLarge(text)) throw new InputError('The request holds more than anything that can be asked here.');
  return shaped(schema, valueOf(text));
}
