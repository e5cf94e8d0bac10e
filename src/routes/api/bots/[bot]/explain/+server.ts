import { application } from '$server/application.js';
import { answer, pathNumber, readJson } from '$server/http.js';
import { messageSchema } from '$server/message.js';
import { localNow } from '$server/time.js';
import type { RequestHandler } from './$types';

/** Why a message is read as it is by the model that answers now. */
export const POST: RequestHandler = ({ params, request }) =>
  answer(async () => {
    const { bots, models } = await application();
    const { text } = await readJson<{ text: string }>(request, messageSchema);
    const bot = await bots.get(pathNumber(params.bot));
    return models.explain(await models.answering(bot), text, localNow(bot.document.timeZone));
  });
