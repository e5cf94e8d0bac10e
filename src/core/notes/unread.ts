import type { Check, Remark } from './note.js';

/** Utterances in which values of some entities could not be looked for. */
export const unread: Check = {
  name: 'unread',
  intent: ({ unread: all }, intent) => {
    const own = new Map(
      all.filter((line) => line.intent === intent.name).map(({ text, entities }) => [text, entities]),
    );
    return intent.utterances.flatMap(({ id, text: said }, row): Remark[] => {
      const entities = own.get(said);
      if (!entities) return [];
      const text = `In row ${row + 1}, ${entities.join(', ')} could not be looked for; the rest of it is learned. Write it in another way, or take it out.`;
      return [{ text, weight: 'missing', place: { utterance: id } }];
    });
  },
};
