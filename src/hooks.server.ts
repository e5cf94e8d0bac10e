import { randomUUID } from 'node:crypto';
import { json, type Handle, type HandleServerError, type ServerInit } from '@sveltejs/kit';
import { application, closeApplication } from '$server/application.js';

const SAFE_METHODS = ['GET', 'HEAD', 'OPTIONS'];

export const init: ServerInit = async () => {
  await application();
  process.once('sveltekit:shutdown', () => void closeApplication());
};

/** A page of another site must not act here: the browser tells where a request comes from. */
function comesFromElsewhere(request: Request): boolean {
  const site = request.headers.get('sec-fetch-site');
  if (site !== null && site !== 'same-origin' && site !== 'none') return true;
  const origin = request.headers.get('origin');
  if (origin === null) return false;
  try {
    return new URL(origin).host !== request.headers.get('host');
  } catch {
    return true;
  }
}

export const handle: Handle = async ({ event, resolve }) => {
  event.locals.requestNumber = randomUUID().slice(0, 8);
  if (!SAFE_METHODS.includes(event.request.method) && comesFromElsewhere(event.request)) {
    return json({ message: 'This request came from another site and was refused.', faults: [] }, { status: 403 });
  }
  const theme = event.cookies.get('theme') === 'dark' ? 'g100' : 'white';
  const response = await resolve(event, {
    transformPageChunk: ({ html }) => html.replace('%theme%', theme),
    preload: ({ type }) => type === 'js' || type === 'css' || type === 'font',
  });
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'same-origin');
  response.headers.set('x-frame-options', 'DENY');
  response.headers.set('cross-origin-opener-policy', 'same-origin');
  return response;
};

export const handleError: HandleServerError = async ({ error, event, status }) => {
  if (status === 404)
    return { message: 'There is nothing at this address.', requestNumber: event.locals.requestNumber };
  const { log } = await application();
  log.error({ err: error, requestNumber: event.locals.requestNumber, path: event.url.pathname }, 'request failed');
  return {
    message: 'Something went wrong here, and it is not your doing. Try again; what was saved before is safe.',
    requestNumber: event.locals.requestNumber,
  };
};
