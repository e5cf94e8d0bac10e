import { testSetChangeBody } from '$server/bodies.js';
import { answer, NotFoundError, pathNumber, readJson } from '$server/http.js';
import { runAfterEdits } from '$server/repositories/tests.js';
import type { RequestHandler } from './$types';

/** Deletes a test set with its runs; undo brings them back. */
export const DELETE: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots }, context) => {
    const { bot, set } = event.params;
    if (!(await bots.deleteTestSet(context, pathNumber(bot), pathNumber(set))))
      throw new NotFoundError('There is no such test set.');
  });

/** Says whether a test set is run after each edit session. */
export const PATCH: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots, database }) => {
    const { afterEdits } = await readJson(event.request, testSetChangeBody);
    const { id } = await bots.get(pathNumber(event.params.bot));
    if (!(await runAfterEdits(database, id, { id: pathNumber(event.params.set), afterEdits })))
      throw new NotFoundError('There is no such test set.');
  });
