import { json } from '@sveltejs/kit';
import { version } from '$app/environment';
import { sql } from 'kysely';
import { application } from '$server/application.js';
import type { RequestHandler } from './$types';

/** Tells whether the application works: version, database, and the model of each bot; those not opened yet are at rest. */
export const GET: RequestHandler = async () => {
  const { bots, database, log, models } = await application();
  try {
    await sql`select 1`.execute(database);
    const list = await bots.list();
    return json({
      version,
      database: 'ok',
      models: list.map(({ id, name }) => ({ bot: id, name, ...(models.state(id) ?? { state: 'at rest' }) })),
    });
  } catch (error) {
    log.error({ err: error }, 'the database does not answer');
    return json({ version, database: 'does not answer', models: [] }, { status: 503 });
  }
};
