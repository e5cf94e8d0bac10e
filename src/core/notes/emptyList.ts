import { findEntity } from '../bot/document.js';
import type { Check, Remark } from './note.js';

/** Slots whose list has no values yet. */
export const emptyList: Check = {
  name: 'empty list',
  form: ({ document }, { slots }) =>
    slots.flatMap(({ name: slot, entity: name }): Remark[] => {
      const entity = findEntity(document, name);
      if (entity?.kind !== 'list' || (entity.values ?? []).length > 0) return [];
      return [{ text: `${slot} asks for ${name}, which has no values yet.`, weight: 'missing', place: { slot } }];
    }),
};
