import { application } from '$server/application.js';
import { answer, NotFoundError, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Deletes a test set with its runs; undo brings them back. */
export const DELETE: RequestHandler = ({ params }) =>
  answer(async () => {
    const { bots } = await application();
    if (!(await bots.deleteTestSet(pathNumber(params.bot), pathNumber(params.set))))
      throw new NotFoundError('There is no such test set.');
  });
