import { findEntity, findForm } from '../bot/document.js';
import type { Check } from './note.js';

/** Free words are found only where they were marked. */
export const unmarkedSlot: Check = {
  name: 'unmarked slot',
  intent: ({ document }, intent) => {
    const marked = new Set(intent.utterances.flatMap(({ marks }) => marks.map((mark) => mark.slot)));
    return (findForm(document, intent.form)?.slots ?? [])
      .filter((slot) => slot.required && !marked.has(slot.name) && findEntity(document, slot.entity)?.kind === 'free')
      .map(({ name: slot }) => ({
        text: `No utterance has ${slot} marked; free words are only found where they were marked.`,
        weight: 'weak',
        place: { slot },
      }));
  },
};
