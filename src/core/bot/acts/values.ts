import type { InferType } from '../../shape/yup.js';
import { changeValuesInRule } from '../../say/condition.js';
import type { BotDocument, Entity, ListValue, RowId } from '../document.js';
import { MOST } from '../limits.js';
import { ActError, actKind, type Renaming } from './act.js';
import { count, idsFor, mapped, named, replace } from './common.js';
import { change, listOf, name, parts, rowId, text, texts } from '../../shape/shapes.js';

const valueChange = change({ value: text(MOST.value), synonyms: texts(MOST.synonyms, MOST.value) });

export type ValueChange = InferType<typeof valueChange>;

const filled = (words: readonly string[]): string[] => words.map((word) => word.trim()).filter((word) => word !== '');

const withValues = (document: BotDocument, entity: string, values: ListValue[]): BotDocument => ({
  ...document,
  entities: replace(document.entities, entity, (own) => ({ ...own, values })),
});

const tooMany = () => new ActError(`A list has at most ${MOST.values.toLocaleString('en-GB')} values.`);

/** The list that a value is in. @throws ActError where the value is gone */
function listWith(document: BotDocument, id: RowId): { entity: Entity; values: ListValue[]; item: ListValue } {
  for (const entity of document.entities) {
    const item = entity.values?.find((value) => value.id === id);
    if (item) return { entity, values: entity.values!, item };
  }
  throw new ActError('This value is no longer there: it was deleted meanwhile.');
}

/** Conditions and defaults that name a value follow when it is called otherwise. */
function renameInConditions(document: BotDocument, entity: string, from: string, to: string): BotDocument {
  const forms = mapped(document.forms, (form) => {
    const own = new Set(form.slots.filter((slot) => slot.entity === entity).map((slot) => slot.name));
    if (own.size === 0) return form;
    const renamed = (slot: string, value: string) => (own.has(slot) && value === from ? to : value);
    const slots = mapped(form.slots, (slot) => {
      const next = {
        ...slot,
        ...(slot.when === undefined ? {} : { when: changeValuesInRule(slot.when, renamed) }),
        ...(own.has(slot.name) && slot.default === from ? { default: to } : {}),
      };
      return JSON.stringify(next) === JSON.stringify(slot) ? slot : next;
    });
    return slots === form.slots ? form : { ...form, slots };
  });
  return { ...document, forms };
}

/** Tests speak of a value by the slots it fills, or by its entity. */
function valueRenaming(document: BotDocument, entity: string, from: string, to: string): Renaming {
  const slots = document.forms.flatMap((form) => form.slots.filter((slot) => slot.entity === entity));
  return { what: 'value', from, to, slots: [...new Set([entity, ...slots.map((slot) => slot.name)])] };
}

export const VALUE_ACTS = [
  actKind(
    'addValues',
    parts({
      entity: name(),
      values: listOf(
        parts({
          value: text(MOST.value).defined('is missing'),
          synonyms: texts(MOST.synonyms, MOST.value).defined('is missing'),
        }),
        MOST.values,
        { some: true },
      ),
      ids: texts(MOST.values, MOST.id),
    }),
    (document, act, context) => {
      const entity = named(document.entities, act.entity, 'entity');
      if (entity.kind !== 'list') throw new ActError(`${entity.name} is no list; only a list has values.`);
      const values = entity.values ?? [];
      const ids = idsFor(
        act.values.length,
        act.ids,
        document.entities.flatMap((own) => own.values ?? []),
        context,
      );
      const known = new Set(values.map(({ value }) => value));
      const added: ListValue[] = [];
      act.values.forEach(({ value: written, synonyms }, index) => {
        const value = written.trim();
        if (value === '' || known.has(value)) return;
        known.add(value);
        added.push({ id: ids[index]!, value, synonyms: filled(synonyms) });
      });
      if (added.length === 0) throw new ActError(`${entity.name} has these values already.`);
      if (values.length + added.length > MOST.values) throw tooMany();
      return {
        document: withValues(document, entity.name, [...values, ...added]),
        label: `add ${count(added.length, 'value')} to ${entity.name}`,
      };
    },
  ),

  actKind('changeValue', parts({ id: rowId().defined('is missing'), to: valueChange }), (document, { id, to }) => {
    const { entity, values, item } = listWith(document, id);
    const value = to.value?.trim() ?? item.value;
    if (value === '') throw new ActError('A value cannot be empty. Delete it if it is not wanted.');
    if (value !== item.value && values.some((other) => other.value === value)) {
      throw new ActError(`${entity.name} has another value "${value}".`);
    }
    const next = { id, value, synonyms: to.synonyms ? filled(to.synonyms) : item.synonyms };
    const changed = withValues(
      document,
      entity.name,
      values.map((other) => (other === item ? next : other)),
    );
    const label = `change “${item.value}” of ${entity.name}`;
    if (value === item.value) return { document: changed, label };
    return {
      document: renameInConditions(changed, entity.name, item.value, value),
      label,
      renaming: valueRenaming(document, entity.name, item.value, value),
    };
  }),

  actKind('deleteValues', parts({ ids: texts(MOST.values, MOST.id).required('is missing') }), (document, { ids }) => {
    if (ids.length === 0) throw new ActError('There is nothing to delete.');
    const { entity, values } = listWith(document, ids[0]!);
    const gone = new Set(ids);
    const kept = values.filter(({ id }) => !gone.has(id));
    if (values.length - kept.length !== gone.size) {
      throw new ActError(
        'Some of these values are no longer there: they were deleted meanwhile. Look at the list again.',
      );
    }
    return {
      document: withValues(document, entity.name, kept),
      label: `delete ${count(gone.size, 'value')} of ${entity.name}`,
    };
  }),
] as const;
