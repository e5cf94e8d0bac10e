import { answer, pathNumber, rowNumber } from '$server/http.js';
import { utterancesPage } from '$server/views/teach.js';
import type { RequestHandler } from './$types';

/** The utterances of an intent from the row `from` on, as many as a page has. */
export const GET: RequestHandler = (event) =>
  answer(event, 'bot:read', (app) =>
    utterancesPage(
      app,
      pathNumber(event.params.bot),
      event.params.intent,
      rowNumber(event.url.searchParams.get('from')),
    ),
  );
