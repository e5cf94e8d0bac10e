import type { InferType } from '../../shape/yup.js';
import { findForm, type BotDocument, type Entity } from '../document.js';
import { MOST } from '../limits.js';
import { renameMarks } from '../marking.js';
import { ActError, actKind } from './act.js';
import { changed, mapped, named, replace, requireName, withUtterances } from './common.js';
import { change, entityKind, flag, name, parts, text } from '../../shape/shapes.js';

const OPTIONAL = ['misspellings', 'pattern'] as const;

const entityParts = { misspellings: flag().nullable(), pattern: text(MOST.pattern).nullable() };
const entityChange = change({ name: text(MOST.name), kind: entityKind(), ...entityParts });

export type EntityChange = InferType<typeof entityChange>;

/** A list has values, a pattern its expression; what another kind would need goes. */
function fitted(entity: Entity): Entity {
  const { misspellings, values, pattern, ...own } = entity;
  if (entity.kind === 'list') return { ...own, misspellings: misspellings ?? true, values: values ?? [] };
  if (entity.kind === 'pattern') return { ...own, pattern: pattern ?? String.raw`\d+` };
  return own;
}

/** Renames the marks of utterances that name the entity itself; a slot of the same name goes before it. */
const renameEntityMarks = (document: BotDocument, entity: string, to: string | null): BotDocument['intents'] =>
  mapped(document.intents, (intent) => {
    const slots = findForm(document, intent.form)?.slots ?? [];
    if (slots.some((slot) => slot.name === entity)) return intent;
    return withUtterances(intent, (utterance) => renameMarks(utterance, entity, to));
  });

export const ENTITY_ACTS = [
  actKind(
    'addEntity',
    parts({ name: name(), kind: entityKind().required('is missing'), ...entityParts }),
    (document, act) => {
      const own = requireName(act.name, 'entity', document.entities);
      const entity = fitted(changed<Entity>({ name: own, kind: act.kind }, act, OPTIONAL));
      return {
        document: { ...document, entities: [...document.entities, { ...entity, name: own }] },
        label: `add entity ${own}`,
      };
    },
  ),

  actKind('changeEntity', parts({ name: name(), to: entityChange }), (document, { name: wanted, to }) => {
    const before = named(document.entities, wanted, 'entity');
    const next = changed<Entity>(before, { ...to, name: to.name?.trim() }, OPTIONAL);
    const entity = next.kind === before.kind ? next : fitted(next);
    if (entity.name === wanted) {
      return {
        document: { ...document, entities: replace(document.entities, wanted, () => entity) },
        label: `change ${wanted}`,
      };
    }
    const renamed = { ...entity, name: requireName(entity.name, 'entity', document.entities) };
    return {
      document: {
        ...document,
        entities: replace(document.entities, wanted, () => renamed),
        forms: mapped(document.forms, (form) => {
          const slots = mapped(form.slots, (slot) =>
            slot.entity === wanted ? { ...slot, entity: renamed.name } : slot,
          );
          return slots === form.slots ? form : { ...form, slots };
        }),
        intents: renameEntityMarks(document, wanted, renamed.name),
      },
      label: `rename ${wanted} to ${renamed.name}`,
    };
  }),

  actKind('deleteEntity', parts({ name: name() }), (document, { name: wanted }) => {
    named(document.entities, wanted, 'entity');
    const user = document.forms.find((form) => form.slots.some((slot) => slot.entity === wanted));
    if (user) {
      throw new ActError(`"${wanted}" fills a slot of the form ${user.name}. Give that slot another entity first.`);
    }
    return {
      document: {
        ...document,
        entities: document.entities.filter((entity) => entity.name !== wanted),
        intents: renameEntityMarks(document, wanted, null),
      },
      label: `delete entity ${wanted}`,
    };
  }),
] as const;
