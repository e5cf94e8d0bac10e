import { json } from '@sveltejs/kit';
import { version } from '$app/environment';
import { application } from '$server/application.js';
import type { RequestHandler } from './$types';

/** Tells whether the application works: version, database, and the model of each bot; those not opened yet are at rest. */
export const GET: RequestHandler = async () => {
  const { health } = await application();
  const told = await health.tell();
  return json({ version, ...told }, { status: told.database === 'ok' ? 200 : 503 });
};
