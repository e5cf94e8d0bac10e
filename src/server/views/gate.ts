import type { GateIntent, GateMessage, GateSource, GateView } from '../../core/contract/gate.js';
import { isCounted } from '../../core/measure/evaluate.js';
import { countConsequences, gatedMessages } from '../../core/measure/levels.js';
import { decide, gateOf, type Gate } from '../../core/recognise/gate.js';
import type { HeldOutPrediction } from '../../core/recognise/intentModel.js';
import { formOfIntent, type BotDocument, type Intent } from '../../core/bot/document.js';
import type { Application } from '../application.js';
import { lastTestRun, listRunSets, type TestRun } from '../repositories/tests.js';

const UTTERANCES: GateSource = { id: null, name: 'utterances, held out', read: null };

/** Of what was held out the first intent and its own are known, which is all that the gate asks of most. */
function heldOutMessage({ text, intent, predicted, confidence, ownConfidence }: HeldOutPrediction): GateMessage {
  const first = predicted === null ? [] : [{ intent: predicted, confidence }];
  const own = predicted === intent ? [] : [{ intent, confidence: ownConfidence }];
  return { text, expected: intent, top: [...first, ...own] };
}

/** The messages of the last run over a test set. */
async function runMessages(app: Application, botId: number, testSet: number): Promise<GateMessage[]> {
  const run = await lastTestRun(app.database, botId, testSet);
  const counted = run?.results.filter(isCounted) ?? [];
  return gatedMessages(counted).map((message, at) => ({ ...message, text: counted[at]!.text }));
}

function doesWhat(document: BotDocument, { name, desk }: Intent): GateIntent['does'] {
  const form = formOfIntent(document, name);
  if (form) return form.confirm ? 'read back' : 'form';
  return desk === undefined ? 'reply' : 'desk';
}

const gateIntents = (document: BotDocument): GateIntent[] =>
  document.intents.map((intent) => ({
    name: intent.name,
    does: doesWhat(document, intent),
    accept: intent.accept ?? null,
  }));

/** Messages of each kind that are tried for a read-through. */
const MOST_TRIED = 4;

/** The shortest messages that the gate asks about: of those where several intents are in reach, and where one is. */
function askedAbout(messages: readonly GateMessage[], gate: Gate): string[] {
  const asked = messages.flatMap(({ text, top }) => {
    const { decision, candidates } = decide(top, gate);
    return decision === 'ask' ? [{ text, several: candidates.length > 1 }] : [];
  });
  asked.sort((one, other) => one.text.length - other.text.length);
  return [true, false].flatMap((kind) =>
    asked
      .filter(({ several }) => several === kind)
      .slice(0, MOST_TRIED)
      .map(({ text }) => text),
  );
}

/** @param wanted the test set whose last run the gate is shown with; `utterances` for what was held out */
export async function gateView(app: Application, botId: number, wanted: string | null): Promise<GateView> {
  const bot = await app.bots.get(botId);
  const sources = (await listRunSets(app.database, botId)).map(({ id, name, ranAt, revision }): GateSource => ({
    id,
    name,
    read: { at: ranAt, revision },
  }));
  const predictions = await app.models.predictions(bot);
  if (predictions.length > 0) sources.push(UTTERANCES);
  const source = sources.find(({ id }) => String(id ?? 'utterances') === wanted) ?? sources[0] ?? null;
  const set = source?.id ?? null;
  const messages = set === null ? predictions.map(heldOutMessage) : await runMessages(app, botId, set);
  const { document } = bot;
  const gate = gateOf(document);
  return {
    gate,
    intents: gateIntents(document),
    noMatch: document.noMatch,
    desks: document.desks.map(({ name }) => name),
    through: await app.models.helpThrough(bot, askedAbout(messages, gate)),
    sources,
    source,
    messages,
  };
}

/** Of the messages of a run, the share that the gate as it stands asks about; `null` of none. */
export function shareAsked(run: TestRun | null, document: BotDocument): number | null {
  const messages = run ? gatedMessages(run.results) : [];
  if (messages.length === 0) return null;
  const counts = countConsequences(messages, gateOf(document));
  const asked =
    counts['asked, right one offered'] + counts['asked, right one not offered'] + counts['asked out of scope'];
  return asked / messages.length;
}
