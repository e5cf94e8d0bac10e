import { application } from '$server/application.js';
import { answer, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Deletes a bot so that it can be brought back. */
export const DELETE: RequestHandler = ({ params }) =>
  answer(async () => {
    const { bots } = await application();
    await bots.delete(pathNumber(params.bot));
  });
