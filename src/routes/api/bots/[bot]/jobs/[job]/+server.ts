import { answer, NotFoundError, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

const gone = () => new NotFoundError('There is no such work going on.');

/** How far long work is. */
export const GET: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ jobs }) => {
    const job = await jobs.get(pathNumber(event.params.bot), pathNumber(event.params.job));
    if (!job) throw gone();
    return job;
  });

/** Stops it. */
export const DELETE: RequestHandler = (event) =>
  answer(event, 'bot:test', ({ jobs }) => {
    if (!jobs.stop(pathNumber(event.params.bot), pathNumber(event.params.job))) throw gone();
    return Promise.resolve();
  });
