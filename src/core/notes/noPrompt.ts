import { variants } from '../bot/localised.js';
import { spokenIn, type Check } from './note.js';

export const noPrompt: Check = {
  name: 'no prompt',
  form: ({ document }, { slots }) =>
    slots
      .filter(({ required, prompts }) => required && variants(prompts, spokenIn(document)).length === 0)
      .map(({ name: slot }) => ({
        text: `${slot} is required and has no prompt.`,
        weight: 'missing',
        place: { slot },
      })),
};
