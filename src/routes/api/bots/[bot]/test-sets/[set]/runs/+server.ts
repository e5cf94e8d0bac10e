import { application } from '$server/application.js';
import { answer, NotFoundError, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Begins a test run and tells how far it is. */
export const POST: RequestHandler = ({ params }) =>
  answer(async () => {
    const { bots, testRuns } = await application();
    const bot = await bots.get(pathNumber(params.bot));
    const progress = await testRuns.start(bot, pathNumber(params.set));
    if (!progress) throw new NotFoundError('There is no such test set.');
    return progress;
  });
