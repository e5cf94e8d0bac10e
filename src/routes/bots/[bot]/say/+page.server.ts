import { application } from '$server/application.js';
import { loading, pathNumber } from '$server/http.js';
import { sayView } from '$server/views/say.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ params, url }) =>
  loading(async () => ({
    view: await sayView(await application(), pathNumber(params.bot), url.searchParams.get('form')),
  }));
