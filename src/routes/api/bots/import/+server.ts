import { answer, readText } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Makes a bot from a file, JSON or YAML. A file with faults changes nothing. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bots:make', async ({ bots }, context) => ({
    id: await bots.bringIn(context, await readText(event.request)),
  }));
