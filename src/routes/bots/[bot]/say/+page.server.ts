import { loading, pathNumber } from '$server/http.js';
import { sayView } from '$server/views/say.js';
import { MODEL_VIEW, VIEW } from '$ui/shared/loads.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) => {
  event.depends(VIEW, MODEL_VIEW);
  return loading(event, 'bot:read', async (app) => ({
    view: await sayView(app, pathNumber(event.params.bot), event.url.searchParams.get('form')),
  }));
};
