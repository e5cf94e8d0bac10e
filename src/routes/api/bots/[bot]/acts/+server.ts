import { answer, pathNumber, readBody } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Does one act upon a bot. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bot:edit', async ({ bots }, context) => {
    const act = await bots.read('act', await readBody(event.request));
    const { revision } = await bots.act(context, pathNumber(event.params.bot), act);
    return { revision };
  });
