import type { ProveView } from '../../core/contract/prove.js';
import { verdict, type Verdict } from '../../core/measure/evaluate.js';
import type { Application } from '../application.js';
import { lastJob } from '../repositories/jobs.js';
import { lastTestRun, listTestSets } from '../repositories/tests.js';

const ORDER: Verdict[] = ['wrong and accepted', 'wrong and asked about', 'not matched', 'right'];

export async function proveView(app: Application, botId: number, wanted: string | null): Promise<ProveView> {
  const { id } = await app.bots.get(botId);
  const testSets = await listTestSets(app.database, id);
  const current = testSets.find((set) => String(set.id) === wanted) ?? testSets[0] ?? null;
  const run = current ? await lastTestRun(app.database, id, current.id) : null;
  const last = current ? await lastJob(app.database, { botId: id, kind: 'test run', subject: current.id }) : null;
  return {
    testSets,
    current,
    unfinished: last?.state === 'failed' || last?.state === 'cut short' ? last : null,
    run: run && {
      ranAt: run.ranAt,
      revision: run.revision,
      evaluation: run.evaluation,
      taught: run.results.filter((result) => result.taught).map(({ text }) => text),
      wrong: run.results
        .map((result) => ({ ...result, verdict: verdict(result) }))
        .filter((result) => result.expected !== undefined && !result.taught && result.verdict !== 'right')
        .sort((a, b) => ORDER.indexOf(a.verdict) - ORDER.indexOf(b.verdict) || b.confidence - a.confidence),
    },
  };
}
