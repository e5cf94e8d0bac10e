import { changeValuesInRule } from '../../say/condition.js';
import { findForm, type BotDocument, type Entity, type ListValue } from '../document.js';
import { renameMarks } from '../marking.js';
import { changed, count, EditError, named, replace, requireName, type Change, type Edited } from './common.js';

export type EntityChange = Change<Omit<Entity, 'values'>>;

const OPTIONAL = ['misspellings', 'pattern'] as const;

/** A list has values, a pattern its expression; what another kind would need goes. */
function fitted(entity: Entity): Entity {
  const { misspellings, values, pattern, ...own } = entity;
  if (entity.kind === 'list') return { ...own, misspellings: misspellings ?? true, values: values ?? [] };
  if (entity.kind === 'pattern') return { ...own, pattern: pattern ?? String.raw`\d+` };
  return own;
}

export function addEntity(document: BotDocument, entity: Entity): Edited {
  const name = requireName(entity.name, 'entity', document.entities);
  return {
    document: { ...document, entities: [...document.entities, { ...entity, name }] },
    label: `add entity ${name}`,
  };
}

/** Renames the marks of utterances that name the entity itself; a slot of the same name goes before it. */
function renameEntityMarks(document: BotDocument, name: string, to: string | null): BotDocument['intents'] {
  return document.intents.map((intent) => {
    const slots = findForm(document, intent.form)?.slots ?? [];
    if (slots.some((slot) => slot.name === name)) return intent;
    return { ...intent, utterances: intent.utterances.map((line) => renameMarks(line, name, to)) };
  });
}

export function changeEntity(document: BotDocument, name: string, to: EntityChange): Edited {
  const before = named(document.entities, name, 'entity');
  const next = changed<Entity>(before, to, OPTIONAL);
  const entity = next.kind === before.kind ? next : fitted(next);
  if (entity.name === name) {
    return {
      document: { ...document, entities: replace(document.entities, name, () => entity) },
      label: `change ${name}`,
    };
  }
  const renamed = { ...entity, name: requireName(entity.name, 'entity', document.entities) };
  return {
    document: {
      ...document,
      entities: replace(document.entities, name, () => renamed),
      forms: document.forms.map((form) => ({
        ...form,
        slots: form.slots.map((slot) => (slot.entity === name ? { ...slot, entity: renamed.name } : slot)),
      })),
      intents: renameEntityMarks(document, name, renamed.name),
    },
    label: `rename ${name} to ${renamed.name}`,
  };
}

export function deleteEntity(document: BotDocument, name: string): Edited {
  const user = document.forms.find((form) => form.slots.some((slot) => slot.entity === name));
  if (user) {
    throw new EditError(`"${name}" fills a slot of the form ${user.name}. Give that slot another entity first.`);
  }
  return {
    document: {
      ...document,
      entities: document.entities.filter((entity) => entity.name !== name),
      intents: renameEntityMarks(document, name, null),
    },
    label: `delete entity ${name}`,
  };
}

function listNamed(document: BotDocument, name: string): ListValue[] {
  const entity = named(document.entities, name, 'entity');
  if (entity.kind !== 'list') throw new EditError(`${name} is no list; only a list has values.`);
  return entity.values ?? [];
}

const withValues = (document: BotDocument, name: string, values: ListValue[]): BotDocument => ({
  ...document,
  entities: replace(document.entities, name, (entity) => ({ ...entity, values })),
});

/** Adds values that a list does not have yet, each with the other ways it is said. */
export function addValues(document: BotDocument, name: string, given: readonly ListValue[]): Edited {
  const values = listNamed(document, name);
  const known = new Set(values.map(({ value }) => value));
  const added: ListValue[] = [];
  for (const { value: written, synonyms } of given) {
    const value = written.trim();
    if (value === '' || known.has(value)) continue;
    known.add(value);
    added.push({ value, synonyms: synonyms.map((synonym) => synonym.trim()).filter((synonym) => synonym !== '') });
  }
  if (added.length === 0) throw new EditError(`${name} has these values already.`);
  return {
    document: withValues(document, name, [...values, ...added]),
    label: `add ${count(added.length, 'value')} to ${name}`,
  };
}

/** Values are known by their main form, so that an act never hits another row. */
function requireValue(values: readonly ListValue[], value: string, entity: string): void {
  if (!values.some((item) => item.value === value)) {
    throw new EditError(`${entity} has no value "${value}" any more. Look at it again and repeat.`);
  }
}

/** Conditions and defaults that name a value follow when it is called otherwise. */
function renameInConditions(document: BotDocument, entity: string, from: string, to: string): BotDocument {
  const forms = document.forms.map((form) => {
    const own = new Set(form.slots.filter((slot) => slot.entity === entity).map((slot) => slot.name));
    if (own.size === 0) return form;
    const renamed = (slot: string, value: string) => (own.has(slot) && value === from ? to : value);
    const slots = form.slots.map((slot) => ({
      ...slot,
      ...(slot.when === undefined ? {} : { when: changeValuesInRule(slot.when, renamed) }),
      ...(own.has(slot.name) && slot.default === from ? { default: to } : {}),
    }));
    return { ...form, slots };
  });
  return { ...document, forms };
}

export function changeValue(document: BotDocument, name: string, value: string, to: Partial<ListValue>): Edited {
  const values = listNamed(document, name);
  requireValue(values, value, name);
  const next = {
    ...to,
    ...(to.value === undefined ? {} : { value: to.value.trim() }),
    ...(to.synonyms
      ? { synonyms: to.synonyms.map((synonym) => synonym.trim()).filter((synonym) => synonym !== '') }
      : {}),
  };
  if (next.value === '') throw new EditError('A value cannot be empty. Delete it if it is not wanted.');
  if (next.value !== undefined && next.value !== value && values.some((item) => item.value === next.value)) {
    throw new EditError(`${name} has another value "${next.value}".`);
  }
  const changed = withValues(
    document,
    name,
    values.map((item) => (item.value === value ? { ...item, ...next } : item)),
  );
  return {
    document: next.value === undefined ? changed : renameInConditions(changed, name, value, next.value),
    label: `change “${value}” of ${name}`,
  };
}

export function deleteValues(document: BotDocument, name: string, gone: readonly string[]): Edited {
  const values = listNamed(document, name);
  for (const value of gone) requireValue(values, value, name);
  return {
    document: withValues(
      document,
      name,
      values.filter(({ value }) => !gone.includes(value)),
    ),
    label: `delete ${count(gone.length, 'value')} of ${name}`,
  };
}
