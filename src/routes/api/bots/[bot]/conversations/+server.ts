import { answer, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Lists the conversations of whoever asks, the latest first. */
export const GET: RequestHandler = (event) =>
  answer(event, 'bot:talk', async ({ bots, conversations }, context) =>
    conversations.list(context, await bots.get(pathNumber(event.params.bot))),
  );

/** Begins a conversation. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bot:talk', async ({ bots, conversations }, context) =>
    conversations.start(context, await bots.get(pathNumber(event.params.bot))),
  );
