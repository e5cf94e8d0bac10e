import type { InferType } from '../../shape/yup.js';
import type { BotDocument, Intent, RowId, Utterance } from '../document.js';
import { MOST } from '../limits.js';
import { MarkingError, readMarking, writeMarking, type MarkedText } from '../marking.js';
import { ActError, actKind } from './act.js';
import { count, idsFor, marksForForm, named, replace } from './common.js';
import { name, parts, row, rowId, rows, text, texts } from '../../shape/shapes.js';

/** A row of a sheet with the words it had when the person acted. */
export type RowReference = InferType<ReturnType<typeof row>>;

/** What can be read of an utterance: trimmed, one line, its marking readable. @throws ActError */
function readUtterance(source: string): MarkedText {
  const line = source.replace(/\s+/gu, ' ').trim();
  if (line === '') throw new ActError('An utterance cannot be empty.');
  try {
    const marked = readMarking(line);
    if (marked.text.length > MOST.utterance) {
      throw new ActError(`An utterance has at most ${MOST.utterance.toLocaleString('en-GB')} characters.`);
    }
    return marked;
  } catch (error) {
    if (error instanceof MarkingError) throw new ActError(`"${line.slice(0, 200)}": ${error.message}.`);
    throw error;
  }
}

/** Where a row stands. */
interface Place {
  intent: Intent;
  utterance: Utterance;
}

/** Where rows stand, whichever intent they are in by now. @throws ActError for one that is gone or was changed */
function placesOf(document: BotDocument, references: readonly RowReference[]): Map<RowId, Place> {
  const wanted = new Map(references.map(({ id, was }) => [id, was]));
  const places = new Map<RowId, Place>();
  for (const intent of document.intents) {
    for (const utterance of intent.utterances) {
      const was = wanted.get(utterance.id);
      if (was === undefined) continue;
      if (writeMarking(utterance) !== was) {
        throw new ActError(
          `“${was.slice(0, 200)}” was changed meanwhile to “${utterance.text.slice(0, 200)}”. Look at it again and repeat.`,
        );
      }
      places.set(utterance.id, { intent, utterance });
    }
  }
  const lost = references.find(({ id }) => !places.has(id));
  if (lost) throw new ActError(`“${lost.was.slice(0, 200)}” is no longer there: it was deleted meanwhile.`);
  return places;
}

/** The intents without some rows; those that have none of them stay the same objects. */
const without = (document: BotDocument, gone: ReadonlyMap<RowId, unknown>): Intent[] =>
  document.intents.map((intent) => {
    const utterances = intent.utterances.filter(({ id }) => !gone.has(id));
    return utterances.length === intent.utterances.length ? intent : { ...intent, utterances };
  });

/** The intents that rows are in, for a label. */
const sources = (places: ReadonlyMap<RowId, Place>): string =>
  [...new Set([...places.values()].map(({ intent }) => intent.name))].join(', ');

export const UTTERANCE_ACTS = [
  actKind(
    'addUtterances',
    parts({
      intent: name(),
      /** The row that they come after, `null` for the first place; without it they come last. */
      after: rowId().nullable(),
      utterances: texts(MOST.lines, MOST.utterance * 2).required('is missing'),
      ids: texts(MOST.lines, MOST.id),
    }),
    (document, act, context) => {
      const intent = named(document.intents, act.intent, 'intent');
      const lines = act.utterances.filter((line) => line.trim() !== '').map(readUtterance);
      if (lines.length === 0) throw new ActError('There is nothing to add: the text is empty.');
      if (intent.utterances.length + lines.length > MOST.utterances) {
        throw new ActError(`An intent has at most ${MOST.utterances.toLocaleString('en-GB')} utterances.`);
      }
      const others = document.intents.flatMap(({ utterances }) => utterances);
      const ids = idsFor(lines.length, act.ids, others, context);
      const added = lines.map((line, index) => ({ id: ids[index]!, ...line }));
      const { utterances } = intent;
      const before = act.after === null ? 0 : utterances.findIndex(({ id }) => id === act.after) + 1;
      const at = act.after === undefined || (act.after !== null && before === 0) ? utterances.length : before;
      const next = { ...intent, utterances: utterances.toSpliced(at, 0, ...added) };
      return {
        document: { ...document, intents: replace(document.intents, intent.name, () => next) },
        label: `add ${count(lines.length, 'utterance')} to ${intent.name}`,
      };
    },
  ),

  actKind(
    'changeUtterance',
    parts({ row: row().required('is missing'), to: text(MOST.utterance * 2).defined('is missing') }),
    (document, { row: reference, to }) => {
      const marked = readUtterance(to);
      const { intent } = placesOf(document, [reference]).get(reference.id)!;
      const utterances = intent.utterances.map((line) =>
        line.id === reference.id ? { id: line.id, ...marked } : line,
      );
      return {
        document: { ...document, intents: replace(document.intents, intent.name, () => ({ ...intent, utterances })) },
        label: `change an utterance of ${intent.name}`,
      };
    },
  ),

  actKind('deleteUtterances', parts({ rows: rows() }), (document, act) => {
    const places = placesOf(document, act.rows);
    return {
      document: { ...document, intents: without(document, places) },
      label: `delete ${count(places.size, 'utterance')} of ${sources(places)}`,
    };
  }),

  actKind('moveUtterances', parts({ rows: rows(), to: name() }), (document, act) => {
    const target = named(document.intents, act.to, 'intent');
    const all = placesOf(document, act.rows);
    const places = new Map([...all].filter(([, { intent }]) => intent !== target));
    const leaving = new Map<Intent, Utterance[]>();
    for (const { intent, utterance } of places.values()) {
      const own = leaving.get(intent);
      if (own) own.push(utterance);
      else leaving.set(intent, [utterance]);
    }
    const moved = [...leaving].flatMap(([{ form }, own]) => marksForForm(document, own, form, target.form));
    const intents = without(document, places).map((intent) =>
      intent === target ? { ...target, utterances: [...target.utterances, ...moved] } : intent,
    );
    return {
      document: { ...document, intents },
      label: `move ${count(places.size, 'utterance')} from ${sources(places)} to ${target.name}`,
    };
  }),
] as const;
