import type { BotAct } from '$core/bot/acts/index.js';
import { ApiError, send } from './api.js';
import { notices } from './notices.svelte.js';
import { live, refresh } from './live.svelte.js';

/** Tells a refusal in the top bar; anything else goes on up. */
export function tell(error: unknown): void {
  if (!(error instanceof ApiError)) throw error;
  notices.say('error', error.message);
}

let last: Promise<unknown> = Promise.resolve();

/** Requests that wait for their turn, each to be sent once. */
const waiting = new Set<() => Promise<unknown>>();

/** Sends a request when the one before has been answered, so that acts are done in the order in which they were asked. */
export function inTurn<T>(request: () => Promise<T>): Promise<T> {
  let sent: Promise<T> | null = null;
  const go = (): Promise<T> => {
    waiting.delete(go);
    return (sent ??= request());
  };
  waiting.add(go);
  const next = last.then(go, go);
  last = next.catch(() => undefined);
  return next;
}

/** Sends what waits for its turn: the page is left, and no turn will come. */
export function sendWaiting(): void {
  // Nobody is left to be told of a refusal.
  for (const go of [...waiting]) void go().catch(() => undefined);
}

/**
 * Does one act upon a bot and shows the result on every part of the screen.
 * @param said a message that offers to undo it; left out for acts whose result is before the person's eyes
 * @returns whether it was done; a refusal is told
 */
export async function edit(botId: number, act: BotAct, said?: string): Promise<boolean> {
  try {
    await inTurn(() => send('POST', `/api/bots/${botId}/acts`, act));
  } catch (error) {
    tell(error);
    return false;
  }
  live.expectChange();
  await refresh();
  if (said !== undefined) notices.say('success', said, { label: 'Undo', run: () => void stepHistory(botId, 'undo') });
  return true;
}

/**
 * Does one act that a field asks for, which tells a refusal itself.
 * @returns `true`, or the sentence that says why it was refused
 */
export async function keepEdit(botId: number, act: BotAct): Promise<true | string> {
  try {
    await inTurn(() => send('POST', `/api/bots/${botId}/acts`, act));
  } catch (error) {
    if (!(error instanceof ApiError)) throw error;
    return error.message;
  }
  live.expectChange();
  await refresh();
  return true;
}

/** What the server says to an undo. */
interface SteppedAnswer {
  done: boolean;
  label: string | null;
  /** Whether something else that somebody else did stands in the way. */
  inTheWay?: boolean;
}

/**
 * Undoes the person's last act, or does it again. What somebody else did stays, unless the person says that it may go.
 * @param overOthers whether the person has said so
 */
export async function stepHistory(
  botId: number,
  direction: 'undo' | 'redo',
  { overOthers = false } = {},
): Promise<void> {
  try {
    const { done, label, inTheWay } = await inTurn(() =>
      send<SteppedAnswer>('POST', `/api/bots/${botId}/history`, { direction, overOthers }),
    );
    const [did, again] = direction === 'undo' ? ['Undone', 'Undo it'] : ['Done again', 'Do it again'];
    const run = () => void stepHistory(botId, direction, { overOthers: true });
    if (label === null) {
      notices.say('info', direction === 'undo' ? 'There is nothing to undo.' : 'There is nothing to do again.');
    } else if (done) notices.say('info', `${did}: ${label}`);
    else if (inTheWay) {
      const why = `Not ${did.toLowerCase()}: somebody else has changed the same since (${label}).`;
      notices.say('info', why, { label: `${again} all the same`, run });
    } else {
      notices.say('info', `You have nothing to undo. Somebody else did this last: ${label}.`, { label: again, run });
    }
    if (!done) return;
  } catch (error) {
    tell(error);
    return;
  }
  live.expectChange();
  await refresh();
}
