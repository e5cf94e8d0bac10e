import { application } from '$server/application.js';
import { answer, pathNumber } from '$server/http.js';
import { deleteWalkthrough } from '$server/repositories/walkthroughs.js';
import type { RequestHandler } from './$types';

/** Deletes a walkthrough. */
export const DELETE: RequestHandler = ({ params }) =>
  answer(async () => {
    const { bots, database, models } = await application();
    const bot = await bots.get(pathNumber(params.bot));
    await deleteWalkthrough(database, bot.id, pathNumber(params.walkthrough));
    await models.rerunWalkthroughs(bot.id);
  });
