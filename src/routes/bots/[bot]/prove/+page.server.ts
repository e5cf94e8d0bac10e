import { loading, pathNumber } from '$server/http.js';
import { proveView } from '$server/views/prove.js';
import { VIEW } from '$ui/shared/loads.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) => {
  event.depends(VIEW);
  const asked = (name: string) => event.url.searchParams.get(name);
  const wanted = { set: asked('set'), run: asked('run'), against: asked('against'), show: asked('show') };
  return loading(event, 'bot:read', async (app) => ({
    view: await proveView(app, pathNumber(event.params.bot), wanted),
  }));
};
