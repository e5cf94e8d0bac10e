// The HTTP server around the built application: how requests are taken, answered to their end, and how all ends.
import { createServer } from 'node:http';

/** What the application is told of the way a request came, by a header that nobody outside can set. */
const SCHEME = 'x-reed-gate-scheme';
// Without word of a proxy, what comes here comes over plain http.
if (process.env.ORIGIN === undefined && process.env.PROTOCOL_HEADER === undefined) process.env.PROTOCOL_HEADER = SCHEME;
// The application has bounds of its own, and says so in a sentence.
process.env.BODY_SIZE_LIMIT = 'Infinity';

/** How much of a body that was refused before its end is read away, in bytes, so that its answer arrives. */
const MOST_READ_AWAY = 128 * 1024 * 1024;
/** How long its sender may pause, in milliseconds. */
const LONGEST_PAUSE = 2000;
/** How long requests may still take once the server is told to end, and how long all else, in milliseconds. */
const LAST_REQUESTS = 1500;
const LAST_WORK = 4000;

/** Reads away what is left of a body; calls back when all is read, or when that takes too much. */
function readAway(request, done) {
  let left = MOST_READ_AWAY;
  let timer = setTimeout(over, LONGEST_PAUSE);
  function over() {
    clearTimeout(timer);
    request.removeAllListeners('data');
    done();
    done = () => undefined;
  }
  request.removeAllListeners('data');
  request.on('data', (chunk) => {
    left -= chunk.length;
    if (left < 0) return over();
    clearTimeout(timer);
    timer = setTimeout(over, LONGEST_PAUSE);
  });
  request.once('end', over);
  request.once('close', over);
  request.resume();
}

/** Has an answer end only after the body was read: whoever still sends would be cut off and hear nothing of it. */
function endAfterBody(request, response) {
  const end = response.end.bind(response);
  response.end = (...given) => {
    if (request.complete || request.destroyed) return end(...given);
    readAway(request, () => end(...given));
    return response;
  };
}

const { handler } = await import('./build/handler.js');

const server = createServer((request, response) => {
  request.headers[SCHEME] = 'http';
  response.setHeader('x-content-type-options', 'nosniff');
  endAfterBody(request, response);
  handler(request, response, () => {
    response.statusCode = 404;
    response.end('There is nothing at this address.');
  });
});

let ending = false;
/** Takes no more requests, lets those that are there come to an end, and has the application close. */
function end() {
  if (ending) return;
  ending = true;
  // What is confirmed is kept; nothing that hangs may keep a dead program alive.
  setTimeout(() => {
    process.stderr.write('Closing took too long and was cut short; what was confirmed is kept.\n');
    process.exit(0);
  }, LAST_WORK).unref();
  setTimeout(() => server.closeAllConnections(), LAST_REQUESTS).unref();
  server.close(() => {
    const closed = [];
    // Listeners hand in what is to be waited for.
    process.emit('sveltekit:shutdown', { waitFor: (work) => closed.push(work) });
    Promise.allSettled(closed).then(() => process.exit(0));
  });
  server.closeIdleConnections();
}

for (const signal of ['SIGTERM', 'SIGINT']) process.on(signal, end);
server.listen({ host: process.env.HOST ?? '0.0.0.0', port: Number(process.env.PORT ?? 3000) });
