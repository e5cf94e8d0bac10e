import { answer, NotFoundError, pathNumber, readBody } from '$server/http.js';
import type { RequestHandler } from './$types';

const NONE = 'There is no such test set.';

/** Adds messages with the intent each ought to have (`null`: out of scope) to a test set. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots }, context) => {
    const { bot, set } = event.params;
    const { lines } = await bots.read('testLines', await readBody(event.request));
    const given = lines.map(({ text, intent, slots }) => ({
      text,
      ...(intent === undefined ? {} : { intent }),
      ...(slots ? { slots } : {}),
    }));
    const ids = await bots.addTestLines(context, pathNumber(bot), pathNumber(set), given);
    if (ids === null) throw new NotFoundError(NONE);
    return { ids };
  });

/** Changes lines: the text with its slots, the value of one of them, the label, the style and the tags. */
export const PATCH: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots }, context) => {
    const { bot, set } = event.params;
    const { ids, change } = await bots.read('testLineChange', await readBody(event.request));
    const done = await bots.changeTestLines(context, pathNumber(bot), pathNumber(set), { numbers: ids, change });
    if (!done) throw new NotFoundError(NONE);
    return {};
  });

/** Deletes lines. */
export const DELETE: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots }, context) => {
    const { bot, set } = event.params;
    const { ids } = await bots.read('testLineIds', await readBody(event.request));
    if (!(await bots.deleteTestLines(context, pathNumber(bot), pathNumber(set), ids))) throw new NotFoundError(NONE);
    return {};
  });
