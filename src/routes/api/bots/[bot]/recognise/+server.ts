import { answer, pathNumber, readJson } from '$server/http.js';
import { messageBody } from '$server/bodies.js';
import type { RequestHandler } from './$types';

/** Reads one message with the model that answers now, and says which that is. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bot:read', async ({ bots, models }) => {
    const { text } = await readJson(event.request, messageBody);
    const bot = await bots.get(pathNumber(event.params.bot));
    const recognition = await models.recognise(bot, text);
    return { ...recognition, model: await models.stateOf(bot) };
  });
