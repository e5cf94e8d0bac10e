import { answer, NotFoundError, pathNumber, readJson } from '$server/http.js';
import { turnBody } from '$server/bodies.js';
import type { RequestHandler } from './$types';

const gone = () => new NotFoundError('There is no such conversation.');

/** Takes a conversation one turn further. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bot:talk', async ({ bots, conversations }, context) => {
    const bot = await bots.get(pathNumber(event.params.bot));
    const { clientId = null, ...said } = await readJson(event.request, turnBody);
    const result = await conversations.say(context, bot, pathNumber(event.params.conversation), { said, clientId });
    if (!result) throw gone();
    return result;
  });

/** Goes back to before the turn `?from`. */
export const DELETE: RequestHandler = (event) =>
  answer(event, 'bot:talk', async ({ bots, conversations }, context) => {
    const bot = await bots.get(pathNumber(event.params.bot));
    const from = Number(event.url.searchParams.get('from') ?? '0');
    const conversation = pathNumber(event.params.conversation);
    const done = Number.isInteger(from) && (await conversations.takeBack(context, bot, conversation, from));
    if (!done) throw gone();
  });
