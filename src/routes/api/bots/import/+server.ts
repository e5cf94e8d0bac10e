import { answer, readText } from '$server/http.js';
import type { RequestHandler } from './$types';

/**
 * Makes a bot from a file, JSON or YAML. A file with faults changes nothing.
 * The answer comes when the bot is there; with `?watch` at once, with the work to be watched.
 */
export const POST: RequestHandler = (event) =>
  answer(event, 'bots:make', async ({ bots }, context) => {
    const { view, finished } = await bots.bringIn(context, await readText(event.request));
    if (event.url.searchParams.has('watch')) return { id: view.botId, job: view };
    await finished;
    return { id: view.botId };
  });
