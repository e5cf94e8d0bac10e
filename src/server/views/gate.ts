import type { GateMessage, GateSource, GateView } from '../../core/contract/gate.js';
import { isCounted } from '../../core/measure/evaluate.js';
import { countConsequences, gatedMessages } from '../../core/measure/levels.js';
import type { HeldOutPrediction } from '../../core/recognise/intentModel.js';
import type { BotDocument } from '../../core/bot/document.js';
import type { Application } from '../application.js';
import { lastTestRun, listTestSets, type TestRun } from '../repositories/tests.js';

const UTTERANCES: GateSource = { id: null, name: 'utterances, held out', read: null };

/** Of what was held out the first intent and its own are known, which is all that the gate asks of most. */
function heldOutMessage({ text, intent, predicted, confidence, ownConfidence }: HeldOutPrediction): GateMessage {
  const first = predicted === null ? [] : [{ intent: predicted, confidence }];
  const own = predicted === intent ? [] : [{ intent, confidence: ownConfidence }];
  return { text, expected: intent, top: [...first, ...own] };
}

function runMessages({ results }: TestRun): GateMessage[] {
  const counted = results.filter(isCounted);
  return gatedMessages(counted).map((message, at) => ({ ...message, text: counted[at]!.text }));
}

/** @param wanted the test set whose last run the gate is shown with; `utterances` for what was held out */
export async function gateView(app: Application, botId: number, wanted: string | null): Promise<GateView> {
  const bot = await app.bots.get(botId);
  const runs = new Map<number, TestRun>();
  const sources: GateSource[] = [];
  for (const { id, name } of await listTestSets(app.database, botId)) {
    const run = await lastTestRun(app.database, botId, id);
    if (!run) continue;
    runs.set(id, run);
    sources.push({ id, name, read: { at: run.ranAt, revision: run.revision } });
  }
  const predictions = await app.models.predictions(bot);
  if (predictions.length > 0) sources.push(UTTERANCES);
  const source = sources.find(({ id }) => String(id ?? 'utterances') === wanted) ?? sources[0] ?? null;
  return {
    gate: bot.document.gate,
    sources,
    source,
    messages:
      source === null ? [] : source.id === null ? predictions.map(heldOutMessage) : runMessages(runs.get(source.id)!),
  };
}

/** Of the messages of a run, the share that the gate as it stands asks about; `null` of none. */
export function shareAsked(run: TestRun | null, { gate }: BotDocument): number | null {
  const messages = run ? gatedMessages(run.results) : [];
  if (messages.length === 0) return null;
  const counts = countConsequences(messages, gate);
  const asked =
    counts['asked, right one offered'] + counts['asked, right one not offered'] + counts['asked out of scope'];
  return asked / messages.length;
}
