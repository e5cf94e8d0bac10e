import type { Kysely } from 'kysely';
import type { Trial, TrialKind, TrialResults, TrialWish } from '../../core/contract/trial.js';
import type { Database } from '../database/schema.js';
import { hasParts, readStored, writeStored, type StoredKind } from './stored.js';

/** Trials of a kind that are kept of a bot. */
const MOST_KEPT = 20;

const kindOf = <Kind extends TrialKind>(
  kind: Kind,
  parts: Parameters<typeof hasParts>[1],
): StoredKind<TrialResults[Kind]> => ({
  name: `result of the trial (${kind})`,
  version: 1,
  upgrade: (value) => value,
  is: (value): value is TrialResults[Kind] => hasParts(value, parts),
});

const RESULTS: { [Kind in TrialKind]: StoredKind<TrialResults[Kind]> } = {
  'cross-validation': kindOf('cross-validation', { intents: 'list', confused: 'list', hardest: 'list' }),
  'learning curve': kindOf('learning curve', { points: 'list', intents: 'list' }),
  noise: kindOf('noise', { set: 'object', trials: 'list' }),
  customers: kindOf('customers', { figures: 'object', conversations: 'list' }),
};

/** @returns its number */
export async function saveTrial<Kind extends TrialKind>(
  db: Kysely<Database>,
  botId: number,
  trial: Omit<Trial<Kind>, 'id'>,
): Promise<number> {
  const { id } = await db
    .insertInto('trial')
    .values({
      bot_id: botId,
      kind: trial.kind,
      settings: JSON.stringify(trial.settings),
      revision: trial.revision,
      reader: trial.reader,
      made_at: trial.madeAt,
      result: writeStored(RESULTS[trial.kind], trial.result),
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  const kept = await db
    .selectFrom('trial')
    .select('id')
    .where('bot_id', '=', botId)
    .where('kind', '=', trial.kind)
    .orderBy('id', 'desc')
    .limit(MOST_KEPT)
    .execute();
  const oldest = kept.at(-1)!.id;
  await db
    .deleteFrom('trial')
    .where('bot_id', '=', botId)
    .where('kind', '=', trial.kind)
    .where('id', '<', oldest)
    .execute();
  return id;
}

/** The last trial of a kind. */
export async function lastTrial<Kind extends TrialKind>(
  db: Kysely<Database>,
  botId: number,
  kind: Kind,
): Promise<Trial<Kind> | null> {
  const row = await db
    .selectFrom('trial')
    .selectAll()
    .where('bot_id', '=', botId)
    .where('kind', '=', kind)
    .orderBy('id', 'desc')
    .limit(1)
    .executeTakeFirst();
  if (!row) return null;
  return {
    id: row.id,
    kind,
    settings: JSON.parse(row.settings) as TrialWish,
    revision: row.revision,
    reader: row.reader,
    madeAt: row.made_at,
    result: readStored(RESULTS[kind], row.result),
  };
}
