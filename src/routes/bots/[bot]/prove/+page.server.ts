import { application } from '$server/application.js';
import { loading, pathNumber } from '$server/http.js';
import { proveView } from '$server/views/prove.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ params, url }) =>
  loading(async () => ({
    view: await proveView(await application(), pathNumber(params.bot), url.searchParams.get('set')),
  }));
