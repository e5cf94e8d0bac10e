import { answer, pathNumber, rowNumber } from '$server/http.js';
import { valuesPage } from '$server/views/teach.js';
import type { RequestHandler } from './$types';

/** The values of an entity from the row `from` on, as many as a page has. */
export const GET: RequestHandler = (event) =>
  answer(event, 'bot:read', (app) =>
    valuesPage(app, pathNumber(event.params.bot), event.params.entity, rowNumber(event.url.searchParams.get('from'))),
  );
