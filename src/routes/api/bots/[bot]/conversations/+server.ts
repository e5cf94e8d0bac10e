import { application } from '$server/application.js';
import { answer, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Begins a conversation. */
export const POST: RequestHandler = ({ params }) =>
  answer(async () => {
    const { bots, conversations } = await application();
    return conversations.start(await bots.get(pathNumber(params.bot)));
  });
