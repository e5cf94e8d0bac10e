import { readAct } from '$core/bot/acts/index.js';
import { answer, misshapen, pathNumber, readValue } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Does one act upon a bot. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bot:edit', async ({ bots }, context) => {
    const read = readAct(await readValue(event.request));
    if (!read.ok) throw misshapen(read.faults);
    const { revision } = await bots.act(context, pathNumber(event.params.bot), read.act);
    return { revision };
  });
