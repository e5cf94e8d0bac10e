import { application } from '$server/application.js';
import { answer, pathNumber, readJson } from '$server/http.js';
import { messageSchema } from '$server/message.js';
import { localNow } from '$server/time.js';
import type { RequestHandler } from './$types';

/** Reads one message with the model that answers now, and says which that is. */
export const POST: RequestHandler = ({ params, request }) =>
  answer(async () => {
    const { bots, models } = await application();
    const { text } = await readJson<{ text: string }>(request, messageSchema);
    const bot = await bots.get(pathNumber(params.bot));
    const model = await models.answering(bot);
    const vectors = await models.vectorsFor(model, text);
    const recognition = model.recogniser.recognise(text, vectors, localNow(bot.document.timeZone));
    return { ...recognition, model: await models.stateOf(bot) };
  });
