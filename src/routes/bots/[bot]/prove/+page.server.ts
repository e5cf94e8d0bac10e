import { loading, pathNumber } from '$server/http.js';
import { proveView } from '$server/views/prove.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
  loading(event, 'bot:read', async (app) => ({
    view: await proveView(app, pathNumber(event.params.bot), event.url.searchParams.get('set')),
  }));
