import { application } from '$server/application.js';
import { loading, pathNumber } from '$server/http.js';
import { tryView } from '$server/views/try.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ params }) =>
  loading(async () => ({ view: await tryView(await application(), pathNumber(params.bot)) }));
