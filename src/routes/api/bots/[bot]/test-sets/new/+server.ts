import { randomInt } from 'node:crypto';
import { answer, pathNumber, readJson } from '$server/http.js';
import { newTestSetBody } from '$server/bodies.js';
import type { RequestHandler } from './$types';

const SEEDS = 2 ** 31;

/** Makes a test set: empty, or of a share of the utterances, which are taught no longer. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots }, context) => {
    const { id } = await bots.get(pathNumber(event.params.bot));
    const { name, share } = await readJson(event.request, newTestSetBody);
    const made =
      share === undefined
        ? bots.newTestSet(context, id, name)
        : bots.setAside(context, id, { name, share, seed: randomInt(SEEDS) });
    return { id: await made };
  });
