import { application } from '$server/application.js';
import { loading, pathNumber } from '$server/http.js';
import { textsView } from '$server/views/say.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ params }) =>
  loading(async () => ({ view: await textsView(await application(), pathNumber(params.bot)) }));
