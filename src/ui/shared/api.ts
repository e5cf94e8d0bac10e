import type { Fault } from '$core/shape/fault.js';

/** A request that was refused, with a sentence for the person. */
export class ApiError extends Error {
  constructor(
    message: string,
    readonly faults: Fault[],
    readonly status: number,
  ) {
    super(message);
  }
}

async function read<T>(response: Response): Promise<T> {
  const body = (await response.json().catch(() => null)) as
    (T & { message?: string; faults?: Fault[]; requestNumber?: string }) | null;
  if (response.ok && body !== null) return body;
  const number = body?.requestNumber === undefined ? '' : ` (request ${body.requestNumber})`;
  throw new ApiError(
    `${body?.message ?? 'The server did not answer as it should.'}${number}`,
    body?.faults ?? [],
    response.status,
  );
}

/** Names this window to the server, so that it knows what was done here. */
export const WINDOW = Math.random().toString(36).slice(2, 12);

async function request<T>(method: string, url: string, init: RequestInit): Promise<T> {
  let response: Response;
  try {
    response = await fetch(url, { method, ...init, headers: { ...init.headers, 'x-window': WINDOW } });
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error;
    throw new ApiError('The server cannot be reached. What you typed is still here; try again.', [], 0);
  }
  return read<T>(response);
}

/** The longest body, in characters, of a request that outlives its page. */
const KEPT_ALIVE = 20_000;

/** Sends JSON and reads JSON. @throws ApiError; AbortError if aborted */
export function send<T>(
  method: 'GET' | 'POST' | 'PATCH' | 'DELETE',
  url: string,
  body?: unknown,
  signal?: AbortSignal,
): Promise<T> {
  const text = body === undefined ? null : JSON.stringify(body);
  return request<T>(method, url, {
    ...(text === null ? {} : { body: text, headers: { 'content-type': 'application/json' } }),
    ...(signal ? { signal } : {}),
    // An act sent as the page is left still arrives; browsers allow that for small bodies.
    keepalive: method !== 'GET' && (text?.length ?? 0) < KEPT_ALIVE,
  });
}

/** Sends a file as it is. @throws ApiError */
export function sendFile<T>(url: string, file: Blob): Promise<T> {
  return request<T>('POST', url, { body: file, headers: { 'content-type': 'application/octet-stream' } });
}
