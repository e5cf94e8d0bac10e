import type { Check } from './note.js';

export const noSlots: Check = {
  name: 'no slots',
  form: (_, { slots }) => (slots.length > 0 ? [] : [{ text: 'The form has no slots.', weight: 'missing' }]),
};
