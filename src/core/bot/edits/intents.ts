import type { BotDocument, Intent } from '../document.js';
import { MarkingError, readMarking, writeMarking } from '../marking.js';
import {
  changed,
  count,
  EditError,
  marksForForm,
  named,
  replace,
  requireName,
  type Change,
  type Edited,
} from './common.js';

/** A row of a sheet with the text it had when the person acted, so that an act never hits another row. */
export interface RowReference {
  index: number;
  was: string;
}

export type IntentChange = Change<Omit<Intent, 'utterances'>>;

const OPTIONAL = ['description', 'called', 'offered', 'form', 'reply', 'desk'] as const;

function withIntent(document: BotDocument, name: string, change: (intent: Intent) => Intent): BotDocument {
  named(document.intents, name, 'intent');
  return { ...document, intents: replace(document.intents, name, change) };
}

function checkedRows(intent: Intent, rows: readonly RowReference[]): Set<number> {
  for (const row of rows) {
    if (intent.utterances[row.index] !== row.was) {
      throw new EditError(`Row ${row.index + 1} of ${intent.name} has changed meanwhile. Look at it again and repeat.`);
    }
  }
  return new Set(rows.map((row) => row.index));
}

/** An utterance as it is kept: trimmed, one line, its marking readable. */
function cleanUtterance(source: string): string {
  const line = source.replace(/\s+/gu, ' ').trim();
  if (line === '') throw new EditError('An utterance cannot be empty.');
  try {
    return writeMarking(readMarking(line));
  } catch (error) {
    if (error instanceof MarkingError) throw new EditError(`"${line}": ${error.message}.`);
    throw error;
  }
}

export function addIntent(document: BotDocument, name: string, description?: string): Edited {
  const intent = changed<Intent>(
    { name: requireName(name, 'intent', document.intents), utterances: [] },
    { description: description?.trim() ?? null },
    OPTIONAL,
  );
  return { document: { ...document, intents: [...document.intents, intent] }, label: `add ${intent.name}` };
}

export function changeIntent(document: BotDocument, name: string, to: IntentChange): Edited {
  const before = named(document.intents, name, 'intent');
  const renamed = to.name !== undefined && to.name !== name;
  const own = renamed ? { name: requireName(to.name!, 'intent', document.intents) } : {};
  let intent = changed(before, { ...to, ...own }, OPTIONAL);
  if (intent.form !== before.form) intent = { ...intent, utterances: marksForForm(document, before, intent.form) };
  const label = renamed ? `rename ${name} to ${intent.name}` : `change ${name}`;
  return { document: { ...document, intents: replace(document.intents, name, () => intent) }, label };
}

export function deleteIntents(document: BotDocument, names: readonly string[]): Edited {
  for (const name of names) named(document.intents, name, 'intent');
  const intents = document.intents.filter((intent) => !names.includes(intent.name));
  return { document: { ...document, intents }, label: `delete ${names.join(', ')}` };
}

export function addUtterances(
  document: BotDocument,
  name: string,
  utterances: readonly string[],
  at = Number.POSITIVE_INFINITY,
): Edited {
  const lines = utterances.filter((line) => line.trim() !== '').map(cleanUtterance);
  if (lines.length === 0) throw new EditError('There is nothing to add: the text is empty.');
  const next = withIntent(document, name, (intent) => ({
    ...intent,
    utterances: intent.utterances.toSpliced(Math.min(at, intent.utterances.length), 0, ...lines),
  }));
  return { document: next, label: `add ${count(lines.length, 'utterance')} to ${name}` };
}

export function changeUtterance(document: BotDocument, name: string, row: RowReference, to: string): Edited {
  const line = cleanUtterance(to);
  const next = withIntent(document, name, (intent) => {
    checkedRows(intent, [row]);
    return { ...intent, utterances: intent.utterances.with(row.index, line) };
  });
  return { document: next, label: `change an utterance of ${name}` };
}

export function deleteUtterances(document: BotDocument, name: string, references: readonly RowReference[]): Edited {
  const next = withIntent(document, name, (intent) => {
    const rows = checkedRows(intent, references);
    return { ...intent, utterances: intent.utterances.filter((_, index) => !rows.has(index)) };
  });
  return { document: next, label: `delete ${count(references.length, 'utterance')} of ${name}` };
}

export function moveUtterances(
  document: BotDocument,
  name: string,
  references: readonly RowReference[],
  to: string,
): Edited {
  const from = named(document.intents, name, 'intent');
  const target = named(document.intents, to, 'intent');
  const rows = checkedRows(from, references);
  const moved = from.utterances.filter((_, index) => rows.has(index));
  const lines = marksForForm(document, { ...from, utterances: moved }, target.form);
  let next = withIntent(document, name, (intent) => ({
    ...intent,
    utterances: intent.utterances.filter((_, index) => !rows.has(index)),
  }));
  next = withIntent(next, to, (intent) => ({ ...intent, utterances: [...intent.utterances, ...lines] }));
  return { document: next, label: `move ${count(rows.size, 'utterance')} from ${name} to ${to}` };
}
