import { answer, NotFoundError, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Begins a test run and tells how far it is. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots, testRuns }) => {
    const bot = await bots.get(pathNumber(event.params.bot));
    const progress = await testRuns.start(bot, pathNumber(event.params.set));
    if (!progress) throw new NotFoundError('There is no such test set.');
    return progress;
  });
