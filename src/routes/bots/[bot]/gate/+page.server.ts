import { loading, pathNumber } from '$server/http.js';
import { gateView } from '$server/views/gate.js';
import { MODEL_VIEW, VIEW } from '$ui/shared/loads.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) => {
  event.depends(VIEW, MODEL_VIEW);
  return loading(event, 'bot:read', async (app) => ({
    view: await gateView(app, pathNumber(event.params.bot), event.url.searchParams.get('by')),
  }));
};
