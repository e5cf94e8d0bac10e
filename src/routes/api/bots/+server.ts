import { answer, readJson } from '$server/http.js';
import { newBotBody } from '$server/bodies.js';
import type { RequestHandler } from './$types';

/** Makes an empty bot. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bots:make', async ({ bots }, context) => {
    const { name } = await readJson(event.request, newBotBody);
    return { id: await bots.createEmpty(context, name) };
  });
