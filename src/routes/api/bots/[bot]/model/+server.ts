import { application } from '$server/application.js';
import { answer, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** The state of the model that answers for a bot. */
export const GET: RequestHandler = ({ params }) =>
  answer(async () => {
    const { bots, models } = await application();
    return models.stateOf(await bots.get(pathNumber(params.bot)));
  });
