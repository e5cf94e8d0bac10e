import { application } from '$server/application.js';
import { answer, NotFoundError, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Deletes a conversation; undo brings it back. */
export const DELETE: RequestHandler = ({ params }) =>
  answer(async () => {
    const { bots } = await application();
    if (!(await bots.deleteConversation(pathNumber(params.bot), pathNumber(params.conversation))))
      throw new NotFoundError('There is no such conversation.');
  });
