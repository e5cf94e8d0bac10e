import { error } from '@sveltejs/kit';
import { loading, pathNumber } from '$server/http.js';
import { proveView } from '$server/views/prove.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) => {
  const asked = (name: string) => event.url.searchParams.get(name);
  const wanted = { set: asked('set'), run: asked('run'), against: asked('against'), show: null };
  return loading(event, 'bot:read', async (app) => {
    const { current, run, comparison } = await proveView(app, pathNumber(event.params.bot), wanted);
    if (!current || !run) error(404, 'There is no test run to report. Run a test in Prove first.');
    return { set: current, run, comparison };
  });
};
