import { object, string } from 'yup';
import { application } from '$server/application.js';
import { answer, pathNumber, readJson } from '$server/http.js';
import { localNow } from '$server/time.js';
import type { RequestHandler } from './$types';

const message = object({
  text: string().strict().defined().max(20_000, 'A message of more than 20,000 characters is not read.'),
});

/** Reads one message with the model that answers now, and says which that is. */
export const POST: RequestHandler = ({ params, request }) =>
  answer(async () => {
    const { bots, models } = await application();
    const { text } = await readJson<{ text: string }>(request, message);
    const bot = await bots.get(pathNumber(params.bot));
    const model = await models.answering(bot);
    const vector = await models.vectorFor(model, text);
    const recognition = model.recogniser.recognise(text, vector, localNow(bot.document.timeZone));
    return { ...recognition, model: await models.stateOf(bot) };
  });
