import type { Check } from './note.js';

export const unopened: Check = {
  name: 'unopened form',
  form: ({ document }, form) =>
    document.intents.some((intent) => intent.form === form.name)
      ? []
      : [{ text: 'No intent opens this form.', weight: 'missing' }],
};
