import { object, string } from 'yup';
import type { TestLine } from '$core/formats/testFile.js';
import { application } from '$server/application.js';
import { answer, NotFoundError, pathNumber, readJson } from '$server/http.js';
import type { RequestHandler } from './$types';

const line = object({
  text: string().trim().required('Write the message first.').max(20_000, 'At most 20,000 characters.'),
  intent: string().strict().nullable().defined(),
});

/** Adds a message with the intent it ought to have (`null`: out of scope) to a test set. */
export const POST: RequestHandler = ({ params, request }) =>
  answer(async () => {
    const { bots } = await application();
    const added = await readJson<TestLine>(request, line);
    if (!(await bots.addTestLine(pathNumber(params.bot), pathNumber(params.set), added)))
      throw new NotFoundError('There is no such test set.');
  });
