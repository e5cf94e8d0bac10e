import { answer, NotFoundError, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Deletes a test set with its runs; undo brings them back. */
export const DELETE: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots }, context) => {
    const { bot, set } = event.params;
    if (!(await bots.deleteTestSet(context, pathNumber(bot), pathNumber(set))))
      throw new NotFoundError('There is no such test set.');
  });
