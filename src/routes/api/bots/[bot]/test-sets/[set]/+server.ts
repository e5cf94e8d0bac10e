import { application } from '$server/application.js';
import { answer, pathNumber } from '$server/http.js';
import { deleteTestSet } from '$server/repositories/tests.js';
import type { RequestHandler } from './$types';

/** Deletes a test set with its runs. */
export const DELETE: RequestHandler = ({ params }) =>
  answer(async () => {
    const { bots, database } = await application();
    const bot = await bots.get(pathNumber(params.bot));
    await deleteTestSet(database, bot.id, pathNumber(params.set));
  });
