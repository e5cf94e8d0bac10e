import { loading, pathNumber } from '$server/http.js';
import { trialsView } from '$server/views/trials.js';
import { VIEW, WALKED } from '$ui/shared/loads.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) => {
  event.depends(VIEW, WALKED);
  const shown = event.url.searchParams.get('show');
  return loading(event, 'bot:read', async (app) => ({
    view: await trialsView(app, pathNumber(event.params.bot), shown),
  }));
};
