import { answer, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Makes a copy of a bot. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bots:make', async ({ bots }, context) => ({
    id: await bots.duplicate(context, pathNumber(event.params.bot)),
  }));
