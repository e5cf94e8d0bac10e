import { loading, pathNumber } from '$server/http.js';
import { proveView } from '$server/views/prove.js';
import { VIEW } from '$ui/shared/loads.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) => {
  event.depends(VIEW);
  return loading(event, 'bot:read', async (app) => ({
    view: await proveView(app, pathNumber(event.params.bot), event.url.searchParams.get('set')),
  }));
};
