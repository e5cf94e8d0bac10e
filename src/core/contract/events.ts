import type { ModelState } from './bot.js';
import type { JobView } from './job.js';

/** Who did something, seen from the screen that is told of it. */
export type Doer = 'this window' | 'you' | 'somebody else';

/** What screens of a bot are told as it happens. */
export type BotEvent =
  /** The stream has begun; `revision` and `acts` tell whether something was missed before. */
  | { type: 'hello'; revision: number; acts: number; model: ModelState; jobs: JobView[] }
  /** Something was done to the bot, its tests or its walkthroughs. */
  | { type: 'act'; revision: number; acts: number; label: string; by: Doer }
  /** The model has changed, or how it stands; `figures` are those it changes. */
  | {
      type: 'model';
      model: ModelState;
      figures: { teach: number | null; try: { passing: number; all: number } | null };
    }
  /** Long work has gone on. */
  | { type: 'job'; job: JobView };
