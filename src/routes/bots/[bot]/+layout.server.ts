import { application } from '$server/application.js';
import { loading, pathNumber } from '$server/http.js';
import { botFrame } from '$server/views/bot.js';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = ({ params }) =>
  loading(async () => ({ frame: await botFrame(await application(), pathNumber(params.bot)) }));
