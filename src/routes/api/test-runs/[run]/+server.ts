import { answer, NotFoundError, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

const gone = () => new NotFoundError('This test run is no longer known.');

/** How far a test run is. */
export const GET: RequestHandler = (event) =>
  answer(event, 'bot:test', ({ testRuns }) => {
    const progress = testRuns.progress(pathNumber(event.params.run));
    if (!progress) throw gone();
    return Promise.resolve(progress);
  });

/** Stops a test run. */
export const DELETE: RequestHandler = (event) =>
  answer(event, 'bot:test', ({ testRuns }) => {
    if (!testRuns.stop(pathNumber(event.params.run))) throw gone();
    return Promise.resolve();
  });
