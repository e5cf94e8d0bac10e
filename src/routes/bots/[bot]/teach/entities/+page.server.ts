import { application } from '$server/application.js';
import { loading, pathNumber } from '$server/http.js';
import { entitiesView } from '$server/views/teach.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ params, url }) =>
  loading(async () => ({
    view: await entitiesView(await application(), pathNumber(params.bot), url.searchParams.get('entity')),
  }));
