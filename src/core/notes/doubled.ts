import type { BotDocument, Intent, Utterance } from '../bot/document.js';
import { writeMarking } from '../bot/marking.js';
import type { Check, Looked, Mend, Remark } from './note.js';

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

/** Rows that are looked at before others may go on. */
const STRETCH = 500;

/** The intent that a line stands in, of all but one; gives `null` now and then. */
function* linesElsewhere({ intents }: BotDocument, but: string): Generator<null, ReadonlyMap<string, string>> {
  const elsewhere = new Map<string, string>();
  for (const { name, utterances } of intents) {
    if (name === but) continue;
    for (const [row, utterance] of utterances.entries()) {
      elsewhere.set(foldLine(utterance), name);
      if (row % STRETCH === STRETCH - 1) yield null;
    }
    yield null;
  }
  return elsewhere;
}

function* doubledRows({ document }: Looked, { name, utterances }: Intent): Generator<Remark | null> {
  const elsewhere = yield* linesElsewhere(document, name);
  const seen = new Map<string, number>();
  for (const [row, utterance] of utterances.entries()) {
    if (row % STRETCH === STRETCH - 1) yield null;
    const line = foldLine(utterance);
    const first = seen.get(line);
    seen.set(line, first ?? row);
    const other = elsewhere.get(line);
    if (other === undefined && first === undefined) continue;
    const found = { place: { utterance: utterance.id }, mend: deleting(utterance, row) };
    if (other !== undefined) {
      const text = `Row ${row + 1} also stands in ${other}; one of the two should go.`;
      yield { ...found, text, weight: 'missing' };
    } else yield { ...found, text: `Row ${row + 1} says the same as row ${first! + 1}.`, weight: 'weak' };
  }
}

/** Utterances that say the same, in one intent or in two. */
export const doubled: Check = { name: 'doubled', intent: doubledRows };
