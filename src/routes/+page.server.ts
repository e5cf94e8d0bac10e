import { loading } from '$server/http.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
  loading(event, 'bots:list', async ({ bots }) => ({ bots: await bots.list(), cutShort: bots.cutShort }));
