import { runBody } from '$server/bodies.js';
import { answer, NotFoundError, pathNumber, readJson } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Begins a test run, with the bot as it is or a kept state of it, and tells how far it is. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots, testRuns }) => {
    const { state } = await readJson(event.request, runBody);
    const bot = await bots.get(pathNumber(event.params.bot));
    const progress = await testRuns.start(bot, pathNumber(event.params.set), { state });
    if (!progress) throw new NotFoundError('There is no such test set or state.');
    return progress;
  });
