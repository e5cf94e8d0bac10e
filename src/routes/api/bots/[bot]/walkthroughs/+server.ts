import { answer, pathNumber, readText } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Adds walkthroughs from a walkthrough file. One with faults changes nothing. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots }, context) => {
    const { id } = await bots.get(pathNumber(event.params.bot));
    await bots.bringInWalkthroughs(context, id, await readText(event.request));
  });
