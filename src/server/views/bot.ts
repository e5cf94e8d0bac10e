import type { BotFrame, SettingsView } from '../../core/contract/bot.js';
import { sayGaps } from '../../core/bot/notes.js';
import type { Application } from '../application.js';
import type { Context } from '../context.js';
import { lastTestRun, listTestSets } from '../repositories/tests.js';

export async function settingsView(app: Application, id: number): Promise<SettingsView> {
  const { name, languages, timeZone, region } = (await app.bots.get(id)).document;
  return { name, languages, timeZone, region };
}

export async function botFrame(app: Application, context: Context, id: number): Promise<BotFrame> {
  const bot = await app.bots.get(id);
  const run = await lastTestRun(app.database, id);
  const gaps = sayGaps(bot.document);
  const names = bot.document.intents.map((intent) => intent.name);
  return {
    bot: { id, name: bot.document.name, revision: bot.revision },
    acts: app.events.actsOf(id),
    jobs: app.jobs.of(id),
    model: await app.models.stateOf(bot),
    history: await app.bots.history(context, id),
    figures: {
      ...app.models.figures(id),
      say: gaps && gaps.forms.length + gaps.intents.length + gaps.texts.length,
      prove: run?.evaluation.accuracy ?? null,
    },
    intents: names,
    testSets: await listTestSets(app.database, id),
  };
}
