import { pino } from 'pino';
import type { Context } from '../src/server/context.js';

export const AT = '2026-03-04T09:30:00.000Z';

/** What services are told of a request of a person. */
export const contextOf = (person: string): Context => ({
  actor: { id: person },
  window: null,
  log: pino({ level: 'silent' }),
  now: () => AT,
});
