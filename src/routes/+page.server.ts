import { application } from '$server/application.js';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => {
  const { bots } = await application();
  return { bots: await bots.list() };
};
