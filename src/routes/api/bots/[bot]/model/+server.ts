import { answer, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** The state of the model that answers for a bot. */
export const GET: RequestHandler = (event) =>
  answer(event, 'bot:read', async ({ bots, models }) => models.stateOf(await bots.get(pathNumber(event.params.bot))));
