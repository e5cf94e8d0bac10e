import type { BotFrame, SettingsView } from '../../core/contract/bot.js';
import { missingIn } from '../../core/notes/index.js';
import type { Application } from '../application.js';
import type { Context } from '../context.js';
import { hasTurns } from '../repositories/conversations.js';
import { lastTestRun, listTestSets } from '../repositories/tests.js';
import { shareAsked } from './gate.js';

/** Utterances that begin to teach an intent. */
const A_HANDFUL = 5;

export async function settingsView(app: Application, id: number): Promise<SettingsView> {
  const { name, languages, timeZone, region } = (await app.bots.get(id)).document;
  return { name, languages, timeZone, region };
}

export async function botFrame(app: Application, context: Context, id: number): Promise<BotFrame> {
  const bot = await app.bots.get(id);
  const run = await lastTestRun(app.database, id);
  const testSets = await listTestSets(app.database, id);
  const names = bot.document.intents.map((intent) => intent.name);
  return {
    bot: { id, name: bot.document.name, revision: bot.revision },
    acts: app.events.actsOf(id),
    jobs: app.jobs.of(id),
    model: await app.models.stateOf(bot),
    steps: {
      intent: bot.document.intents.some(({ utterances }) => utterances.length >= A_HANDFUL),
      entity: bot.document.entities.length > 0,
      form: bot.document.forms.some(({ slots }) => slots.length > 0),
      tried: await hasTurns(app.database, id),
      test: testSets.length > 0,
    },
    history: await app.bots.history(context, id),
    figures: {
      ...app.models.figures(id),
      say: missingIn(bot.document),
      gate: shareAsked(run, bot.document),
      prove: run?.evaluation.accuracy ?? null,
    },
    intents: names,
    testSets,
  };
}
