import type { BotDocument, Intent } from '../bot/document.js';
import { variants } from '../bot/localised.js';
import { spokenIn, type Check } from './note.js';

/** Whether the bot has nothing to do or say when an intent is accepted. */
export const isUnanswered = (document: BotDocument, { form, desk, reply }: Intent): boolean =>
  form === undefined && desk === undefined && variants(reply, spokenIn(document)).length === 0;

export const unanswered: Check = {
  name: 'unanswered',
  intent: ({ document }, intent) =>
    isUnanswered(document, intent)
      ? [
          {
            text: 'The bot has nothing to say to this intent: give it a form, a reply or a desk.',
            weight: 'missing',
          },
        ]
      : [],
};
