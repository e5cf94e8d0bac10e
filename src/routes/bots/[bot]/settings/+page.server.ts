import { loading, pathNumber } from '$server/http.js';
import { settingsView } from '$server/views/bot.js';
import { VIEW } from '$ui/shared/loads.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) => {
  event.depends(VIEW);
  return loading(event, 'bot:read', async (app) => ({
    view: await settingsView(app, pathNumber(event.params.bot)),
  }));
};
