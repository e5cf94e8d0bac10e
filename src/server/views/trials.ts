import type { TrialsView } from '../../core/contract/trial.js';
import type { Application } from '../application.js';
import { lastTrials } from '../repositories/trials.js';
import { listTestSets } from '../repositories/tests.js';

export async function trialsView(app: Application, botId: number): Promise<TrialsView> {
  const { id } = await app.bots.get(botId);
  return {
    trials: await lastTrials(app.database, id),
    testSets: await listTestSets(app.database, id),
    walkthroughs: app.models.walkthroughs(id),
  };
}
