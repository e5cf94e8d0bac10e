import { application } from '$server/application.js';
import { answer, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Brings a deleted bot back. */
export const POST: RequestHandler = ({ params }) =>
  answer(async () => {
    const { bots } = await application();
    await bots.restore(pathNumber(params.bot));
  });
