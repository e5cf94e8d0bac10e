import { application } from '$server/application.js';
import { loading, pathNumber } from '$server/http.js';
import { settingsView } from '$server/views/bot.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ params }) =>
  loading(async () => ({ view: await settingsView(await application(), pathNumber(params.bot)) }));
