import { application } from '$server/application.js';
import { answer, NotFoundError, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Deletes a walkthrough; undo brings it back. */
export const DELETE: RequestHandler = ({ params }) =>
  answer(async () => {
    const { bots } = await application();
    if (!(await bots.deleteWalkthrough(pathNumber(params.bot), pathNumber(params.walkthrough))))
      throw new NotFoundError('There is no such walkthrough.');
  });
