import { application } from '$server/application.js';
import { answer, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Makes a copy of a bot. */
export const POST: RequestHandler = ({ params }) =>
  answer(async () => {
    const { bots } = await application();
    return { id: await bots.duplicate(pathNumber(params.bot)) };
  });
