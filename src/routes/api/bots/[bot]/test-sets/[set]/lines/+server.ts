import { object, string } from 'yup';
import { application } from '$server/application.js';
import { answer, NotFoundError, pathNumber, readJson } from '$server/http.js';
import { addTestLine, readTestLines } from '$server/repositories/tests.js';
import type { RequestHandler } from './$types';

const line = object({
  text: string().trim().required('Write the message first.'),
  intent: string().strict().nullable().defined(),
});

/** Adds a message with the intent it ought to have (`null`: out of scope) to a test set. */
export const POST: RequestHandler = ({ params, request }) =>
  answer(async () => {
    const { bots, database } = await application();
    const bot = await bots.get(pathNumber(params.bot));
    const set = pathNumber(params.set);
    if (!(await readTestLines(database, bot.id, set))) throw new NotFoundError('There is no such test set.');
    await addTestLine(database, set, await readJson(request, line));
  });
