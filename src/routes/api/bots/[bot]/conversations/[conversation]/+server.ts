import { answer, NotFoundError, pathNumber, readJson } from '$server/http.js';
import { conversationBody } from '$server/bodies.js';
import type { RequestHandler } from './$types';

const gone = () => new NotFoundError('There is no such conversation.');

/** A conversation with all of its turns. */
export const GET: RequestHandler = (event) =>
  answer(event, 'bot:talk', async ({ bots, conversations }, context) => {
    const bot = await bots.get(pathNumber(event.params.bot));
    const found = await conversations.get(context, bot, pathNumber(event.params.conversation), { all: true });
    if (!found) throw gone();
    return found;
  });

/** Gives a conversation a name, or keeps it from being cleared away. */
export const PATCH: RequestHandler = (event) =>
  answer(event, 'bot:talk', async ({ bots, conversations }, context) => {
    const bot = await bots.get(pathNumber(event.params.bot));
    const change = await readJson(event.request, conversationBody);
    if (!(await conversations.change(context, bot, pathNumber(event.params.conversation), change))) throw gone();
  });

/** Deletes a conversation; undo brings it back. */
export const DELETE: RequestHandler = (event) =>
  answer(event, 'bot:talk', async ({ bots }, context) => {
    const { bot, conversation } = event.params;
    if (!(await bots.deleteConversation(context, pathNumber(bot), pathNumber(conversation)))) throw gone();
  });
