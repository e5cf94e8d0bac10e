import { loading, pathNumber } from '$server/http.js';
import { entitiesView } from '$server/views/teach.js';
import { VIEW } from '$ui/shared/loads.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) => {
  event.depends(VIEW);
  return loading(event, 'bot:read', async (app) => ({
    view: await entitiesView(app, pathNumber(event.params.bot), {
      entity: event.url.searchParams.get('entity'),
      row: event.url.searchParams.get('row'),
    }),
  }));
};
