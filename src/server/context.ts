import type { Logger } from 'pino';

/** Whoever does something. */
export interface Actor {
  /** Lasts as long as the browser keeps it; of callers without a browser it is {@link SOMEONE}. */
  id: string;
}

/** A caller that does not say who it is. */
export const SOMEONE: Actor = { id: 'someone' };

/** What a service is told of the request it serves. */
export interface Context {
  actor: Actor;
  /** The window that a request came from; `null` where it does not say. */
  window: string | null;
  log: Logger;
  /** The present moment, ISO 8601 in UTC. */
  now: () => string;
}

/** What can be done at a door. */
export type Permission = 'bots:list' | 'bots:make' | 'bot:read' | 'bot:edit' | 'bot:talk' | 'bot:test' | 'bot:delete';

/** Who may do what: until there are accounts, whoever reaches the workbench may do everything in it. */
export const permits = (_: Actor, __: Permission): boolean => true;
