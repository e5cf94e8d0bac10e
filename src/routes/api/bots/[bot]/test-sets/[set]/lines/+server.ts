import { answer, NotFoundError, pathNumber, readJson } from '$server/http.js';
import { testLineBody } from '$server/bodies.js';
import type { RequestHandler } from './$types';

/** Adds a message with the intent it ought to have (`null`: out of scope) to a test set. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots }, context) => {
    const { bot, set } = event.params;
    const line = await readJson(event.request, testLineBody);
    const id = await bots.addTestLine(context, pathNumber(bot), pathNumber(set), line);
    if (id === null) throw new NotFoundError('There is no such test set.');
    return { id };
  });
