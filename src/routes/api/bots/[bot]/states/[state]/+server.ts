import { answer, NotFoundError, pathNumber } from '$server/http.js';
import { deleteState } from '$server/repositories/states.js';
import type { RequestHandler } from './$types';

/** Forgets a kept state; runs that it read stay. */
export const DELETE: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots, database }) => {
    const { id } = await bots.get(pathNumber(event.params.bot));
    if (!(await deleteState(database, id, pathNumber(event.params.state))))
      throw new NotFoundError('There is no such state.');
  });
