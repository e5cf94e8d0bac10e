import { TRIAL_KINDS, type TrialsView } from '../../core/contract/trial.js';
import type { Application } from '../application.js';
import { lastTrial } from '../repositories/trials.js';
import { listTestSets } from '../repositories/tests.js';

/** @param shown what of the trials is looked at: the others are not read, for they may be long */
export async function trialsView(app: Application, botId: number, shown: string | null): Promise<TrialsView> {
  const { id } = await app.bots.get(botId);
  const kind = shown === null ? TRIAL_KINDS[0] : TRIAL_KINDS.find((name) => name === shown);
  return {
    trials: kind === undefined ? {} : { [kind]: await lastTrial(app.database, id, kind) },
    testSets: await listTestSets(app.database, id),
    walkthroughs: app.models.walkthroughs(id),
  };
}
