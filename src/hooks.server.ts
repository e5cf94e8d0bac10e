import { randomUUID } from 'node:crypto';
import { json, type Handle, type HandleServerError, type ServerInit } from '@sveltejs/kit';
import { application, closeApplication, type Application } from '$server/application.js';
import { ownHosts, refusedAtDoor } from '$server/doors.js';
import { newId } from '$server/newId.js';
import { StartError, troubleOf } from '$server/trouble.js';

/** What a start that cannot be made ends with: whoever watches over the server need not try again. */
const NO_START = 3;

async function start(): Promise<Application> {
  try {
    return await application();
  } catch (error) {
    const sentence = error instanceof StartError ? error.message : troubleOf(error);
    if (sentence === null) throw error;
    process.stderr.write(`${sentence}\n`);
    process.exit(NO_START);
  }
}

export const init: ServerInit = async () => {
  process.umask(0o077);
  const { events } = await start();
  // A server whose keeper is gone would hold the data, and nobody would know.
  if (process.channel) {
    process.once('disconnect', () => process.kill(process.pid, 'SIGTERM'));
    // Listening for it would keep a program alive that has nothing more to do.
    process.channel.unref();
  }
  process.once('sveltekit:shutdown', (end: { waitFor?: (work: Promise<void>) => void }) =>
    end.waitFor?.(closeApplication()),
  );
  // The server waits for requests to end, and streams end only when they are told to.
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, () => events.close());
};

const hosts = ownHosts(process.env);

/** How long a browser keeps who a person is, in seconds. */
const TEN_YEARS = 10 * 365 * 24 * 60 * 60;
const PERSON = /^[\w-]{8,40}$/;

export const handle: Handle = async ({ event, resolve }) => {
  event.locals.requestNumber = randomUUID().slice(0, 8);
  const refused = refusedAtDoor(event, hosts);
  if (refused !== null) return json({ message: refused, faults: [], number: 0 }, { status: 403 });
  const known = event.cookies.get('person');
  event.locals.person = known !== undefined && PERSON.test(known) ? known : null;
  // A browser that opens a page is given a name; programs that call without one need none.
  if (event.locals.person === null && event.request.headers.get('accept')?.includes('text/html')) {
    event.locals.person = newId();
    event.cookies.set('person', event.locals.person, {
      path: '/',
      httpOnly: true,
      sameSite: 'lax',
      secure: event.url.protocol === 'https:',
      maxAge: TEN_YEARS,
    });
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

/** What is said of a request that cannot be answered, by its status. */
const REFUSALS: Partial<Record<number, string>> = {
  400: 'The address or the request cannot be read.',
  404: 'There is nothing at this address.',
  405: 'This address takes no such request.',
  413: 'The request is larger than is taken. Divide what you bring in, and bring in the parts.',
  415: 'The request is not of a kind that is taken here.',
};

export const handleError: HandleServerError = async ({ error, event, status }) => {
  const { requestNumber } = event.locals;
  const { log } = await application();
  const told = { err: error, requestNumber, path: event.url.pathname, status };
  // A fault of the request is nothing for whoever looks after the server.
  if (status < 500) {
    log.info(told, 'request refused');
    return { message: REFUSALS[status] ?? 'The request cannot be answered as it is.', requestNumber };
  }
  log.error(told, 'request failed');
  return {
    message: 'Something went wrong here, and it is not your doing. Try again; what was saved before is safe.',
    requestNumber,
  };
};
