import { loading, pathNumber } from '$server/http.js';
import { sayView } from '$server/views/say.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
  loading(event, 'bot:read', async (app) => ({
    view: await sayView(app, pathNumber(event.params.bot), event.url.searchParams.get('form')),
  }));
