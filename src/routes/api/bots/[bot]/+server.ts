import { answer, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Deletes a bot so that it can be brought back. */
export const DELETE: RequestHandler = (event) =>
  answer(event, 'bot:delete', ({ bots }, context) => bots.delete(context, pathNumber(event.params.bot)));
