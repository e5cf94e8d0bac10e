import { answer, pathNumber } from '$server/http.js';
import { findView } from '$server/views/find.js';
import type { RequestHandler } from './$types';

/** What of the bot has the words of `text` in its name or text. */
export const GET: RequestHandler = (event) =>
  answer(event, 'bot:read', (app) =>
    findView(app, pathNumber(event.params.bot), event.url.searchParams.get('text')?.slice(0, 200) ?? ''),
  );
