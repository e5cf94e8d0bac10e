import { loading, pathNumber } from '$server/http.js';
import { tryView } from '$server/views/try.js';
import { VIEW, WALKED } from '$ui/shared/loads.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) => {
  event.depends(VIEW, WALKED);
  return loading(event, 'bot:read', async (app, context) => ({
    view: await tryView(app, context, pathNumber(event.params.bot), {
      wanted: event.url.searchParams.get('conversation'),
      all: event.url.searchParams.has('all'),
    }),
  }));
};
