import { application } from '$server/application.js';
import { answer, NotFoundError, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** How far a test run is. */
export const GET: RequestHandler = ({ params }) =>
  answer(async () => {
    const { testRuns } = await application();
    const progress = testRuns.progress(pathNumber(params.run));
    if (!progress) throw new NotFoundError('This test run is no longer known.');
    return progress;
  });

/** Stops a test run. */
export const DELETE: RequestHandler = ({ params }) =>
  answer(async () => {
    const { testRuns } = await application();
    testRuns.stop(pathNumber(params.run));
  });
