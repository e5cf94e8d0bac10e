import { trialBody } from '$server/bodies.js';
import { answer, pathNumber, readJson } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Begins a trial and tells how far it is. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots, trials }) => {
    const wish = await readJson(event.request, trialBody);
    return trials.start(await bots.get(pathNumber(event.params.bot)), wish);
  });
