import { answer, pathNumber, readJson } from '$server/http.js';
import { messageBody } from '$server/bodies.js';
import type { RequestHandler } from './$types';

/** Why a message is read as it is by the model that answers now. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bot:read', async ({ bots, models }) => {
    const { text } = await readJson(event.request, messageBody);
    return models.explain(await bots.get(pathNumber(event.params.bot)), text);
  });
