import { loading, pathNumber } from '$server/http.js';
import { eventStream } from '$server/stream.js';
import type { RequestHandler } from './$types';

/** Tells what happens to a bot as it happens. */
export const GET: RequestHandler = (event) =>
  loading(event, 'bot:read', async ({ bots, models, jobs, events }, { actor }) => {
    const bot = await bots.get(pathNumber(event.params.bot));
    const model = await models.stateOf(bot);
    return eventStream((send, end) => {
      const leave = events.listen(
        bot.id,
        { person: actor.id, window: event.url.searchParams.get('window') },
        send,
        end,
      );
      send({ type: 'hello', revision: bot.revision, acts: events.actsOf(bot.id), model, jobs: jobs.of(bot.id) });
      return leave;
    });
  });
