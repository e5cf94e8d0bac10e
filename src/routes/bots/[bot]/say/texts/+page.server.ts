import { loading, pathNumber } from '$server/http.js';
import { textsView } from '$server/views/say.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
  loading(event, 'bot:read', async (app) => ({
    view: await textsView(app, pathNumber(event.params.bot)),
  }));
