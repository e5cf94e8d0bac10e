import { writeRunCsv } from '$core/formats/runFile.js';
import { loading, NotFoundError, pathNumber } from '$server/http.js';
import { listTestSets, readTestRun } from '$server/repositories/tests.js';
import type { RequestHandler } from './$types';

/** Gives a run with its lines: `?format=json` (the default) or `csv`. */
export const GET: RequestHandler = (event) =>
  loading(event, 'bot:read', async ({ bots, database }) => {
    const { bot, set, run } = event.params;
    const { id, document } = await bots.get(pathNumber(bot));
    const found = await readTestRun(database, id, { testSetId: pathNumber(set), run: pathNumber(run) });
    const name = (await listTestSets(database, id)).find((own) => own.id === found?.testSetId)?.name;
    if (!found || name === undefined) throw new NotFoundError('There is no such test run.');
    const isTable = event.url.searchParams.get('format') === 'csv';
    const { ranAt, revision, reader, evaluation, results } = found;
    const told = { bot: document.name, testSet: name, ranAt, revision, reader, evaluation, results };
    return new Response(isTable ? writeRunCsv(results) : JSON.stringify(told, null, 2), {
      headers: {
        'content-type': isTable ? 'text/csv; charset=utf-8' : 'application/json',
        'content-disposition': `attachment; filename="run-${found.id}.${isTable ? 'csv' : 'json'}"`,
      },
    });
  });
