import { answer, NotFoundError, pathNumber, readJson } from '$server/http.js';
import { testLineChangeBody, testLineIdsBody, testLinesBody } from '$server/bodies.js';
import type { RequestHandler } from './$types';

const NONE = 'There is no such test set.';

/** Adds messages with the intent each ought to have (`null`: out of scope) to a test set. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots }, context) => {
    const { bot, set } = event.params;
    const { lines } = await readJson(event.request, testLinesBody);
    const given = lines.map(({ text, intent, slots }) => ({
      text,
      ...(intent === undefined ? {} : { intent }),
      ...(slots ? { slots } : {}),
    }));
    const ids = await bots.addTestLines(context, pathNumber(bot), pathNumber(set), given);
    if (ids === null) throw new NotFoundError(NONE);
    return { ids };
  });

/** Changes the label or the text of lines. */
export const PATCH: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots }, context) => {
    const { bot, set } = event.params;
    const { ids: of, change } = await readJson(event.request, testLineChangeBody);
    const { text, intent } = change;
    const changed = {
      ...(text === undefined ? {} : { text }),
      ...(intent === undefined ? {} : { intent }),
    };
    const ids = await bots.changeTestLines(context, pathNumber(bot), pathNumber(set), { ids: of, change: changed });
    if (ids === null) throw new NotFoundError(NONE);
    return { ids };
  });

/** Deletes lines. */
export const DELETE: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots }, context) => {
    const { bot, set } = event.params;
    const { ids } = await readJson(event.request, testLineIdsBody);
    if (!(await bots.deleteTestLines(context, pathNumber(bot), pathNumber(set), ids))) throw new NotFoundError(NONE);
    return {};
  });
