import { findEntity, findForm, type BotDocument, type Entity, type Intent } from '../bot/document.js';
import type { FindValues } from '../recognise/finders/finder.js';
import { languageOf } from '../language/index.js';
import { listFinder } from '../recognise/finders/list.js';
import { tokenise } from '../text/tokens.js';
import type { Check, Remark } from './note.js';

const NO_WORDS: ReadonlySet<string> = new Set();
/** List values do not depend on the day. */
const ANY_DAY = '2026-01-01T12:00';

/** Whether words are a value of a list. */
function knowing(document: BotDocument): (entity: Entity, words: string) => boolean {
  const settings = { language: languageOf(document), region: document.region, vocabulary: NO_WORDS };
  const finders = new Map<string, FindValues>();
  return (entity, words) => {
    const find = finders.get(entity.name) ?? listFinder.prepare(entity, settings);
    finders.set(entity.name, find);
    const inside = words.trim().length;
    return find(tokenise(words), ANY_DAY).some(({ start, end }) => end - start === inside);
  };
}

function remarksOn(document: BotDocument, intent: Intent): Remark[] {
  const form = findForm(document, intent.form);
  const isKnown = knowing(document);
  return intent.utterances.flatMap(({ id, text, marks }, row) =>
    marks.flatMap((mark): Remark[] => {
      const name = form?.slots.find((slot) => slot.name === mark.slot)?.entity ?? mark.slot;
      const entity = findEntity(document, name);
      if (entity?.kind !== 'list') return [];
      const words = text.slice(mark.start, mark.end);
      if (isKnown(entity, words)) return [];
      return [
        {
          text: `“${words}” is no value of ${entity.name} (row ${row + 1}).`,
          weight: 'missing',
          place: { utterance: id, slot: mark.slot },
          mend: {
            words: 'Add it',
            act: { do: 'addValues', entity: entity.name, values: [{ value: words, synonyms: [] }] },
          },
        },
      ];
    }),
  );
}

/** Marked words that their list does not know, so that the bot would not find them elsewhere. */
export const unknownValue: Check = {
  name: 'unknown value',
  intent: ({ document }, intent) => remarksOn(document, intent),
};
