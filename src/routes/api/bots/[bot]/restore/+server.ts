import { answer, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Brings a deleted bot back. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bot:delete', ({ bots }) => bots.restore(pathNumber(event.params.bot)));
