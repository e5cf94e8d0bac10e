import { answer, NotFoundError, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Deletes a walkthrough; undo brings it back. */
export const DELETE: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots }, context) => {
    const { bot, walkthrough } = event.params;
    if (!(await bots.deleteWalkthrough(context, pathNumber(bot), pathNumber(walkthrough))))
      throw new NotFoundError('There is no such walkthrough.');
  });
