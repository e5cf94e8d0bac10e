import { variants } from '../bot/localised.js';
import { spokenIn, type Check } from './note.js';

export const noDone: Check = {
  name: 'nothing said when done',
  form: ({ document }, { done }) =>
    variants(done, spokenIn(document)).length > 0
      ? []
      : [{ text: 'Nothing is said when the form is complete.', weight: 'missing' }],
};
