import { closest } from '../text/distance.js';
import {
  NAME_PATTERN,
  findEntity,
  findForm,
  findIntent,
  type BotDocument,
  type Desk,
  type Entity,
  type Form,
  type Intent,
} from './document.js';
import { MarkingError, readMarking, renameMarks, writeMarking } from './marking.js';
import type { Fault } from './schema.js';
import { validateReferences } from './validate.js';

/** A row of a sheet with the text it had when the person acted, so that an act never hits another row. */
export interface RowReference {
  index: number;
  was: string;
}

/** What of an intent can be changed; `null` takes a part away. */
export interface IntentChange {
  name?: string;
  description?: string | null;
  form?: string | null;
  reply?: Intent['reply'] | null;
  desk?: string | null;
}

export type SettingsChange = Partial<
  Pick<BotDocument, 'name' | 'languages' | 'timeZone' | 'region' | 'greeting' | 'gate' | 'noMatch'>
>;

/** One act of a person upon a bot. */
export type Edit =
  | { do: 'addIntent'; name: string; description?: string }
  | { do: 'changeIntent'; name: string; to: IntentChange }
  | { do: 'deleteIntents'; names: string[] }
  | { do: 'addUtterances'; intent: string; at?: number; utterances: string[] }
  | { do: 'changeUtterance'; intent: string; row: RowReference; to: string }
  | { do: 'deleteUtterances'; intent: string; rows: RowReference[] }
  | { do: 'moveUtterances'; intent: string; rows: RowReference[]; to: string }
  | { do: 'addEntity'; entity: Entity }
  | { do: 'changeEntity'; name: string; to: Entity }
  | { do: 'addValues'; entity: string; values: string[] }
  | { do: 'deleteEntity'; name: string }
  | { do: 'addForm'; name: string; intent?: string }
  | { do: 'changeForm'; name: string; to: Form }
  | { do: 'renameSlot'; form: string; from: string; to: string }
  | { do: 'deleteForm'; name: string }
  | { do: 'changeDesks'; desks: Desk[] }
  | { do: 'changeSettings'; to: SettingsChange };

/** An act that cannot be done, with a sentence for the person who asked for it. */
export class EditError extends Error {
  constructor(
    message: string,
    readonly faults: Fault[] = [],
  ) {
    super(message);
  }
}

/** A document after an act, and what the act was, for undo. */
export interface Edited {
  document: BotDocument;
  label: string;
}

const count = (number: number, one: string, many = `${one}s`): string => `${number} ${number === 1 ? one : many}`;

function requireName(name: string, what: string, taken: readonly string[]): string {
  const trimmed = name.trim();
  if (trimmed === '') throw new EditError(`Give the ${what} a name.`);
  if (!NAME_PATTERN.test(trimmed)) {
    throw new EditError(`"${trimmed}" is no name: use letters, digits, _ and -, beginning with a letter.`);
  }
  if (taken.includes(trimmed)) throw new EditError(`There is another ${what} "${trimmed}"; choose another name.`);
  return trimmed;
}

function replace<T extends { name: string }>(list: readonly T[], name: string, change: (item: T) => T): T[] {
  return list.map((item) => (item.name === name ? change(item) : item));
}

function missing(what: string, name: string, known: readonly { name: string }[]): EditError {
  const near = closest(
    name,
    known.map((item) => item.name),
  );
  return new EditError(`There is no ${what} "${name}"${near ? `; did you mean "${near}"?` : '.'}`);
}

function intentNamed(document: BotDocument, name: string): Intent {
  const intent = findIntent(document, name);
  if (!intent) throw missing('intent', name, document.intents);
  return intent;
}

function withIntent(document: BotDocument, name: string, change: (intent: Intent) => Intent): BotDocument {
  intentNamed(document, name);
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

function without<T extends object, K extends keyof T>(value: T, key: K): T {
  return Object.fromEntries(Object.entries(value).filter(([name]) => name !== key)) as T;
}

function assignOptional<K extends 'description' | 'form' | 'reply' | 'desk'>(
  intent: Intent,
  key: K,
  value: IntentChange[K],
): Intent {
  if (value === undefined) return intent;
  if (value === null || value === '' || (Array.isArray(value) && value.length === 0)) return without(intent, key);
  return { ...intent, [key]: value };
}

function changeIntent(document: BotDocument, name: string, to: IntentChange): Edited {
  const before = intentNamed(document, name);
  let intent = before;
  if (to.name !== undefined && to.name !== name) {
    const taken = document.intents.map((other) => other.name);
    intent = { ...intent, name: requireName(to.name, 'intent', taken) };
  }
  intent = assignOptional(intent, 'description', to.description);
  intent = assignOptional(intent, 'reply', to.reply);
  intent = assignOptional(intent, 'desk', to.desk);
  if (to.form !== undefined && to.form !== (before.form ?? null)) {
    intent = { ...intent, utterances: marksForForm(document, intent, to.form ?? undefined) };
    intent = assignOptional(intent, 'form', to.form);
  }
  const label = intent.name !== name ? `rename ${name} to ${intent.name}` : `change ${name}`;
  return { document: { ...document, intents: replace(document.intents, name, () => intent) }, label };
}

/** Marks name slots of the intent's form, or entities where it has none; they follow when the form changes. */
function marksForForm(document: BotDocument, intent: Intent, formName: string | undefined): string[] {
  const from = findForm(document, intent.form);
  const to = findForm(document, formName);
  let utterances = intent.utterances;
  for (const slot of from?.slots ?? []) {
    if (to?.slots.some((other) => other.name === slot.name)) continue;
    const target = to?.slots.find((other) => other.entity === slot.entity)?.name;
    const entity = findEntity(document, slot.entity)?.name ?? null;
    utterances = utterances.map((utterance) => renameMarks(utterance, slot.name, target ?? entity));
  }
  return utterances;
}

function withForms(document: BotDocument, name: string, to: Form): BotDocument {
  const before = findForm(document, name);
  if (!before) throw missing('form', name, document.forms);
  const removed = before.slots.filter(
    (slot) => !to.slots.some((other) => other.name === slot.name) && !findEntity(document, slot.name),
  );
  const intents = document.intents.map((intent) => {
    if (intent.form !== name) return intent;
    const utterances = removed.reduce(
      (lines, slot) => lines.map((line) => renameMarks(line, slot.name, null)),
      intent.utterances,
    );
    return { ...intent, form: to.name, utterances };
  });
  return { ...document, intents, forms: replace(document.forms, name, () => to) };
}

/** Puts a new name for every `{name}` argument and `var` reference in a form. */
function renameInForm(form: Form, from: string, to: string): Form {
  const argument = new RegExp(`\\{(\\s*)${from}(\\s*[,}])`, 'gu');
  const inText = (value: unknown): unknown => {
    if (typeof value === 'string') return value.replace(argument, `{$1${to}$2`);
    if (Array.isArray(value)) return value.map(inText);
    if (typeof value === 'object' && value !== null) {
      return Object.fromEntries(Object.entries(value).map(([key, part]) => [key, inText(part)]));
    }
    return value;
  };
  const inRule = (rule: unknown): unknown => {
    if (Array.isArray(rule)) return rule.map(inRule);
    if (typeof rule !== 'object' || rule === null) return rule;
    return Object.fromEntries(
      Object.entries(rule).map(([key, part]) => [key, key === 'var' && part === from ? to : inRule(part)]),
    );
  };
  const renamed: Form = {
    ...form,
    slots: form.slots.map((slot) => ({
      ...slot,
      name: slot.name === from ? to : slot.name,
      prompts: inText(slot.prompts) as Form['slots'][number]['prompts'],
      ...(slot.when === undefined ? {} : { when: inRule(slot.when) as Record<string, unknown> }),
    })),
  };
  for (const key of ['confirm', 'decline', 'done'] as const) {
    if (form[key] !== undefined) renamed[key] = inText(form[key]) as NonNullable<Form['confirm']>;
  }
  return renamed;
}

function renameSlot(document: BotDocument, formName: string, from: string, to: string): Edited {
  const form = findForm(document, formName);
  if (!form) throw missing('form', formName, document.forms);
  if (!form.slots.some((slot) => slot.name === from)) throw missing('slot', from, form.slots);
  const name = requireName(
    to,
    'slot',
    form.slots.map((slot) => slot.name),
  );
  return {
    document: {
      ...document,
      forms: replace(document.forms, formName, (item) => renameInForm(item, from, name)),
      intents: document.intents.map((intent) =>
        intent.form !== formName
          ? intent
          : { ...intent, utterances: intent.utterances.map((line) => renameMarks(line, from, name)) },
      ),
    },
    label: `rename slot ${from} to ${name}`,
  };
}

function changeEntity(document: BotDocument, name: string, to: Entity): Edited {
  if (!document.entities.some((entity) => entity.name === name)) throw missing('entity', name, document.entities);
  if (to.name === name) {
    return { document: { ...document, entities: replace(document.entities, name, () => to) }, label: `change ${name}` };
  }
  const entity = {
    ...to,
    name: requireName(
      to.name,
      'entity',
      document.entities.map((other) => other.name),
    ),
  };
  return {
    document: {
      ...document,
      entities: replace(document.entities, name, () => entity),
      forms: document.forms.map((form) => ({
        ...form,
        slots: form.slots.map((slot) => (slot.entity === name ? { ...slot, entity: entity.name } : slot)),
      })),
      intents: document.intents.map((intent) => {
        const slots = findForm(document, intent.form)?.slots ?? [];
        if (slots.some((slot) => slot.name === name)) return intent;
        return { ...intent, utterances: intent.utterances.map((line) => renameMarks(line, name, entity.name)) };
      }),
    },
    label: `rename ${name} to ${entity.name}`,
  };
}

/** Adds values that a list does not have yet. A line may give synonyms after the value, parted by commas. */
function addValues(document: BotDocument, name: string, lines: readonly string[]): Edited {
  const entity = document.entities.find((candidate) => candidate.name === name);
  if (!entity) throw missing('entity', name, document.entities);
  if (entity.kind !== 'list') throw new EditError(`${name} is no list; only a list has values.`);
  const known = new Set((entity.values ?? []).map(({ value }) => value));
  const added = lines
    .map((line) =>
      line
        .split(/[,\t]/)
        .map((part) => part.trim())
        .filter((part) => part !== ''),
    )
    .filter(([value]) => value !== undefined && !known.has(value))
    .map(([value, ...synonyms]) => ({ value: value!, synonyms }));
  if (added.length === 0) throw new EditError(`${name} has these values already.`);
  return {
    document: {
      ...document,
      entities: replace(document.entities, name, (item) => ({ ...item, values: [...(item.values ?? []), ...added] })),
    },
    label: `add ${count(added.length, 'value')} to ${name}`,
  };
}

function deleteEntity(document: BotDocument, name: string): Edited {
  const user = document.forms.find((form) => form.slots.some((slot) => slot.entity === name));
  if (user) {
    throw new EditError(`"${name}" fills a slot of the form ${user.name}. Give that slot another entity first.`);
  }
  return {
    document: {
      ...document,
      entities: document.entities.filter((entity) => entity.name !== name),
      intents: document.intents.map((intent) => {
        const slots = findForm(document, intent.form)?.slots ?? [];
        if (slots.some((slot) => slot.name === name)) return intent;
        return { ...intent, utterances: intent.utterances.map((line) => renameMarks(line, name, null)) };
      }),
    },
    label: `delete entity ${name}`,
  };
}

function act(document: BotDocument, edit: Edit): Edited {
  switch (edit.do) {
    case 'addIntent': {
      const name = requireName(
        edit.name,
        'intent',
        document.intents.map((intent) => intent.name),
      );
      const description = edit.description?.trim();
      const intent: Intent = { name, ...(description ? { description } : {}), utterances: [] };
      return { document: { ...document, intents: [...document.intents, intent] }, label: `add ${name}` };
    }
    case 'changeIntent':
      return changeIntent(document, edit.name, edit.to);
    case 'deleteIntents': {
      for (const name of edit.names) intentNamed(document, name);
      const intents = document.intents.filter((intent) => !edit.names.includes(intent.name));
      return { document: { ...document, intents }, label: `delete ${edit.names.join(', ')}` };
    }
    case 'addUtterances': {
      const lines = edit.utterances.filter((line) => line.trim() !== '').map(cleanUtterance);
      if (lines.length === 0) throw new EditError('There is nothing to add: the text is empty.');
      const next = withIntent(document, edit.intent, (intent) => {
        const at = Math.min(edit.at ?? intent.utterances.length, intent.utterances.length);
        return { ...intent, utterances: intent.utterances.toSpliced(at, 0, ...lines) };
      });
      return { document: next, label: `add ${count(lines.length, 'utterance')} to ${edit.intent}` };
    }
    case 'changeUtterance': {
      const line = cleanUtterance(edit.to);
      const next = withIntent(document, edit.intent, (intent) => {
        checkedRows(intent, [edit.row]);
        return { ...intent, utterances: intent.utterances.with(edit.row.index, line) };
      });
      return { document: next, label: `change an utterance of ${edit.intent}` };
    }
    case 'deleteUtterances': {
      const next = withIntent(document, edit.intent, (intent) => {
        const rows = checkedRows(intent, edit.rows);
        return { ...intent, utterances: intent.utterances.filter((_, index) => !rows.has(index)) };
      });
      return { document: next, label: `delete ${count(edit.rows.length, 'utterance')} of ${edit.intent}` };
    }
    case 'moveUtterances': {
      const from = intentNamed(document, edit.intent);
      const target = intentNamed(document, edit.to);
      const rows = checkedRows(from, edit.rows);
      const moved = from.utterances.filter((_, index) => rows.has(index));
      const lines = marksForForm(document, { ...from, utterances: moved }, target.form);
      let next = withIntent(document, edit.intent, (intent) => ({
        ...intent,
        utterances: intent.utterances.filter((_, index) => !rows.has(index)),
      }));
      next = withIntent(next, edit.to, (intent) => ({ ...intent, utterances: [...intent.utterances, ...lines] }));
      return { document: next, label: `move ${count(rows.size, 'utterance')} from ${edit.intent} to ${edit.to}` };
    }
    case 'addEntity': {
      const name = requireName(
        edit.entity.name,
        'entity',
        document.entities.map((entity) => entity.name),
      );
      return {
        document: { ...document, entities: [...document.entities, { ...edit.entity, name }] },
        label: `add entity ${name}`,
      };
    }
    case 'changeEntity':
      return changeEntity(document, edit.name, edit.to);
    case 'addValues':
      return addValues(document, edit.entity, edit.values);
    case 'deleteEntity':
      return deleteEntity(document, edit.name);
    case 'addForm': {
      const name = requireName(
        edit.name,
        'form',
        document.forms.map((form) => form.name),
      );
      const added = { ...document, forms: [...document.forms, { name, slots: [] }] };
      const next = edit.intent === undefined ? added : changeIntent(added, edit.intent, { form: name }).document;
      return { document: next, label: `add form ${name}` };
    }
    case 'changeForm': {
      if (edit.to.name !== edit.name)
        requireName(
          edit.to.name,
          'form',
          document.forms.map((form) => form.name),
        );
      return { document: withForms(document, edit.name, edit.to), label: `change form ${edit.name}` };
    }
    case 'renameSlot':
      return renameSlot(document, edit.form, edit.from, edit.to);
    case 'deleteForm': {
      if (!findForm(document, edit.name)) throw missing('form', edit.name, document.forms);
      const freed = document.intents
        .filter((intent) => intent.form === edit.name)
        .reduce((next, intent) => changeIntent(next, intent.name, { form: null }).document, document);
      return {
        document: { ...freed, forms: freed.forms.filter((form) => form.name !== edit.name) },
        label: `delete form ${edit.name}`,
      };
    }
    case 'changeDesks': {
      return { document: { ...document, desks: edit.desks }, label: 'change desks' };
    }
    case 'changeSettings':
      return { document: { ...document, ...edit.to }, label: 'change settings' };
  }
}

/**
 * Does one act upon a document. The document given is not changed; parts the act did not touch stay the same objects.
 * @throws EditError if the act cannot be done or would leave a fault that was not there before
 */
export function applyEdit(document: BotDocument, edit: Edit): Edited {
  const edited = act(document, edit);
  const before = new Set(validateReferences(document).map((fault) => fault.path + fault.message));
  const faults = validateReferences(edited.document).filter((fault) => !before.has(fault.path + fault.message));
  if (faults.length > 0) {
    const [first] = faults;
    throw new EditError(`That cannot be done: ${first!.path}: ${first!.message}.`, faults);
  }
  return edited;
}
