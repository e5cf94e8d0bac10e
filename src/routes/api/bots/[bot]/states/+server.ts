import { stateBody } from '$server/bodies.js';
import { answer, pathNumber, readJson } from '$server/http.js';
import { keepState } from '$server/repositories/states.js';
import type { RequestHandler } from './$types';

/** Keeps the bot as it is by a name. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots, database }, context) => {
    const { name } = await readJson(event.request, stateBody);
    const { id, revision, document } = await bots.get(pathNumber(event.params.bot));
    return { id: await keepState(database, id, { name: name.trim(), revision, document, at: context.now() }) };
  });
