import { answer, pathNumber, readJson } from '$server/http.js';
import { historyBody } from '$server/bodies.js';
import type { RequestHandler } from './$types';

/**
 * Undoes the last act of whoever asks, or does again the last one undone. Where that would take back what another person
 * did, nothing is done, and the act is named so that the person can be asked.
 */
export const POST: RequestHandler = (event) =>
  answer(event, 'bot:edit', async ({ bots }, context) => {
    const { direction, overOthers = false } = await readJson(event.request, historyBody);
    const result = await bots.step(context, pathNumber(event.params.bot), direction, { overOthers });
    if (result === null) return { done: false, label: null };
    return result.done
      ? { done: true, label: result.label }
      : { done: false, label: result.label, inTheWay: result.inTheWay };
  });
