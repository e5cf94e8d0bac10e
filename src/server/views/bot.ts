import type { BotFrame, SettingsView } from '../../core/contract/bot.js';
import { sayGaps } from '../../core/bot/notes.js';
import { measureHeldOut } from '../../core/measure/evaluate.js';
import type { Application } from '../application.js';
import type { Context } from '../context.js';
import type { StoredBot } from '../repositories/bots.js';
import { lastTestRun, listTestSets } from '../repositories/tests.js';
import type { OpenModel } from '../services/models.js';

/** The model that answers, if there is one yet; a screen never waits for the first training. */
export async function openModelOf({ models }: Application, bot: StoredBot): Promise<OpenModel | null> {
  const { state } = await models.stateOf(bot);
  return state === 'none' ? null : models.answering(bot);
}

export async function settingsView(app: Application, id: number): Promise<SettingsView> {
  const { name, languages, timeZone, region } = (await app.bots.get(id)).document;
  return { name, languages, timeZone, region };
}

export async function botFrame(app: Application, context: Context, id: number): Promise<BotFrame> {
  const bot = await app.bots.get(id);
  const open = await openModelOf(app, bot);
  const walkthroughs = app.models.walkthroughs(id);
  const run = await lastTestRun(app.database, id);
  const gaps = sayGaps(bot.document);
  const names = bot.document.intents.map((intent) => intent.name);
  return {
    bot: { id, name: bot.document.name, revision: bot.revision },
    model: await app.models.stateOf(bot),
    history: await app.bots.history(context, id),
    figures: {
      teach: open ? measureHeldOut(open.model.heldOut, names).accuracy : null,
      say: gaps && gaps.forms.length + gaps.intents.length + gaps.texts.length,
      try:
        walkthroughs && walkthroughs.length > 0
          ? { passing: walkthroughs.filter((result) => result.passed).length, all: walkthroughs.length }
          : null,
      prove: run?.evaluation.accuracy ?? null,
    },
    intents: names,
    testSets: await listTestSets(app.database, id),
  };
}
