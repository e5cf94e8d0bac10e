import { answer, pathNumber, readText } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Brings in a test file (JSONL, CSV or TSV) under the name `?name`. A file with faults changes nothing. */
export const POST: RequestHandler = (event) =>
  answer(event, 'bot:test', async ({ bots }, context) => {
    const { id } = await bots.get(pathNumber(event.params.bot));
    const name = event.url.searchParams.get('name')?.trim().slice(0, 100) || 'Test set';
    return { id: await bots.bringInTestSet(context, id, name, await readText(event.request)) };
  });
