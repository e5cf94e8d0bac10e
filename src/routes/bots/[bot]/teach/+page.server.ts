import { loading, pathNumber } from '$server/http.js';
import { teachView } from '$server/views/teach.js';
import { MODEL_VIEW, VIEW } from '$ui/shared/loads.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) => {
  event.depends(VIEW, MODEL_VIEW);
  return loading(event, 'bot:read', async (app) => ({
    view: await teachView(app, pathNumber(event.params.bot), {
      intent: event.url.searchParams.get('intent'),
      row: event.url.searchParams.get('row'),
    }),
  }));
};
