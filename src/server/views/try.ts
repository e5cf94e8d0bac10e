import type { TryView } from '../../core/contract/try.js';
import { chooseVariant } from '../../core/say/render.js';
import type { Application } from '../application.js';
import type { Context } from '../context.js';
import { listWalkthroughs } from '../repositories/walkthroughs.js';

export async function tryView(
  app: Application,
  context: Context,
  botId: number,
  { wanted, all }: { wanted: string | null; all: boolean },
): Promise<TryView> {
  const bot = await app.bots.get(botId);
  const results = app.models.walkthroughs(botId) ?? [];
  const stored = await listWalkthroughs(app.database, botId);
  return {
    conversation: await app.conversations.get(context, bot, wanted === null ? undefined : Number(wanted) || 0, { all }),
    conversations: await app.conversations.list(context, bot),
    greeting: chooseVariant(bot.document.greeting, bot.document.languages[0] ?? 'en', 0),
    walkthroughs: stored.map(({ id, walkthrough }, index) => ({
      id,
      name: walkthrough.name,
      result: results[index]?.name === walkthrough.name ? results[index] : null,
    })),
  };
}
