import { stateBody } from '$server/bodies.js';
import { answer, pathNumber, readJson } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Keeps the bot by a name, as it is or as it was before an act of its history. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots }, context) => {
    const wanted = await readJson(event.request, stateBody);
    return { id: await bots.keepState(context, pathNumber(event.params.bot), wanted) };
  });
