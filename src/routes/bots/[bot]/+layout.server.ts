import { loading, pathNumber } from '$server/http.js';
import { botFrame } from '$server/views/bot.js';
import { FRAME } from '$ui/shared/loads.js';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = (event) => {
  event.depends(FRAME);
  return loading(event, 'bot:read', async (app, context) => ({
    frame: await botFrame(app, context, pathNumber(event.params.bot)),
  }));
};
