import type { Utterance } from '../bot/document.js';
import { writeMarking } from '../bot/marking.js';
import type { Check, Mend, Remark } from './note.js';

/** Lines as they are compared: an utterance that no act has touched is the same object, and is folded once. */
const folded = new WeakMap<Utterance, string>();

function foldLine(utterance: Utterance): string {
  const known = folded.get(utterance);
  if (known !== undefined) return known;
  const line = utterance.text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
  folded.set(utterance, line);
  return line;
}

const deleting = (utterance: Utterance, row: number): Mend => ({
  words: `Delete row ${row + 1}`,
  act: { do: 'deleteUtterances', rows: [{ id: utterance.id, was: writeMarking(utterance) }] },
});

/** Utterances that say the same, in one intent or in two. */
export const doubled: Check = {
  name: 'doubled',
  intent: ({ document }, intent) => {
    const elsewhere = new Map<string, string>();
    for (const other of document.intents) {
      if (other.name === intent.name) continue;
      for (const utterance of other.utterances) elsewhere.set(foldLine(utterance), other.name);
    }
    const seen = new Map<string, number>();
    return intent.utterances.flatMap((utterance, row): Remark[] => {
      const line = foldLine(utterance);
      const first = seen.get(line);
      seen.set(line, first ?? row);
      const other = elsewhere.get(line);
      const found = { place: { utterance: utterance.id }, mend: deleting(utterance, row) };
      if (other !== undefined) {
        const text = `Row ${row + 1} also stands in ${other}; one of the two should go.`;
        return [{ ...found, text, weight: 'missing' }];
      }
      if (first !== undefined) {
        return [{ ...found, text: `Row ${row + 1} says the same as row ${first + 1}.`, weight: 'weak' }];
      }
      return [];
    });
  },
};
