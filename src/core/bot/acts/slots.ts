import type { InferType } from '../../shape/yup.js';
import { renameSlotInRule } from '../../say/condition.js';
import { renameArgument } from '../../say/message.js';
import { findEntity, type BotDocument, type Form, type Localised, type RowId, type Slot } from '../document.js';
import { MOST } from '../limits.js';
import { mapWordings } from '../localised.js';
import { renameMarks } from '../marking.js';
import { ActError, actKind } from './act.js';
import { changed, idsFor, mapped, named, replace, requireName, withUtterances } from './common.js';
import {
  change,
  condition,
  defaultValue,
  flag,
  localised,
  name,
  parts,
  rowId,
  text,
  tries,
  wholeNumber,
} from '../../shape/shapes.js';

const OPTIONAL = ['when', 'several', 'default', 'tries'] as const;

const slotParts = {
  several: flag().nullable(),
  tries: tries().nullable(),
  default: defaultValue().nullable(),
  when: condition().nullable(),
};
const slotChange = change({ entity: text(MOST.name), required: flag(), prompts: localised(), ...slotParts });
const slot = () => rowId().defined('is missing');

export type SlotChange = InferType<typeof slotChange>;

const withForm = (document: BotDocument, form: Form): BotDocument => ({
  ...document,
  forms: replace(document.forms, form.name, () => form),
});

/** A slot and the form it is in. @throws ActError where it is gone */
function find(document: BotDocument, id: RowId): { form: Form; slot: Slot } {
  for (const form of document.forms) {
    const found = form.slots.find((own) => own.id === id);
    if (found) return { form, slot: found };
  }
  throw new ActError('This slot is no longer there: it was deleted meanwhile.');
}

/** Puts a new name for every argument of a text and every slot of a condition in a form. */
function renameInForm(form: Form, from: string, to: string): Form {
  const inText = (words: Localised): Localised => mapWordings(words, (wording) => renameArgument(wording, from, to));
  const renamed: Form = {
    ...form,
    slots: form.slots.map((own) => ({
      ...own,
      name: own.name === from ? to : own.name,
      prompts: inText(own.prompts),
      ...(own.when === undefined ? {} : { when: renameSlotInRule(own.when, from, to) }),
    })),
  };
  for (const key of ['confirm', 'decline', 'done'] as const) {
    if (form[key] !== undefined) renamed[key] = inText(form[key]);
  }
  return renamed;
}

export const SLOT_ACTS = [
  actKind(
    'addSlot',
    parts({
      form: name(),
      id: rowId(),
      name: name(),
      entity: text(MOST.name).required('is missing'),
      required: flag().required('is missing'),
      prompts: localised().required('is missing'),
      ...slotParts,
    }),
    (document, { form: formName, ...act }, context) => {
      const form = named(document.forms, formName, 'form');
      if (form.slots.length >= MOST.slots) throw new ActError(`A form has at most ${MOST.slots} slots.`);
      const own = requireName(act.name, 'slot', form.slots);
      const others = document.forms.flatMap(({ slots }) => slots);
      const [id] = idsFor(1, act.id === undefined ? undefined : [act.id], others, context);
      const { entity, required, prompts } = act;
      const base = { id: id!, name: own, entity, required, prompts: prompts as Localised };
      const added = changed<Slot>(base, { ...act, ...base }, OPTIONAL);
      return {
        document: withForm(document, { ...form, slots: [...form.slots, added] }),
        label: `add slot ${own} to ${formName}`,
      };
    },
  ),

  actKind('changeSlot', parts({ slot: slot(), to: slotChange }), (document, act) => {
    const { form, slot: before } = find(document, act.slot);
    const next = changed<Slot>(before, act.to, OPTIONAL);
    const slots = form.slots.map((own) => (own === before ? next : own));
    return { document: withForm(document, { ...form, slots }), label: `change slot ${before.name}` };
  }),

  actKind('renameSlot', parts({ slot: slot(), to: name() }), (document, act) => {
    const {
      form,
      slot: { name: from },
    } = find(document, act.slot);
    const own = requireName(
      act.to,
      'slot',
      form.slots.filter(({ id }) => id !== act.slot),
    );
    const label = `rename slot ${from} to ${own}`;
    if (own === from) return { document, label };
    const filling = document.intents.filter((intent) => intent.form === form.name);
    const intents = document.intents.map((intent) => {
      if (!filling.includes(intent)) return intent;
      const marked = withUtterances(intent, (utterance) => renameMarks(utterance, from, own));
      if (intent.reply === undefined) return marked;
      return { ...marked, reply: mapWordings(intent.reply, (wording) => renameArgument(wording, from, own)) };
    });
    return {
      document: { ...withForm(document, renameInForm(form, from, own)), intents },
      label,
      renaming: {
        what: 'slot',
        from,
        to: own,
        intents: filling.map((intent) => intent.name),
        ownSlots: form.slots.map((other) => other.name),
        otherSlots: document.forms.filter((other) => other !== form).flatMap(({ slots }) => slots.map((s) => s.name)),
      },
    };
  }),

  /** Moves a slot in the order in which it is asked: by how many places, negative for earlier. */
  actKind('moveSlot', parts({ slot: slot(), by: wholeNumber().required('is missing') }), (document, act) => {
    const { form, slot: moved } = find(document, act.slot);
    const from = form.slots.indexOf(moved);
    const to = from + act.by;
    if (to < 0 || to >= form.slots.length) throw new ActError(`${moved.name} is at the end of the form already.`);
    const slots = form.slots.toSpliced(from, 1).toSpliced(to, 0, moved);
    return { document: withForm(document, { ...form, slots }), label: `move slot ${moved.name}` };
  }),

  /** Deletes a slot; marks that name it go with it, unless an entity has the same name. */
  actKind('deleteSlot', parts({ slot: slot() }), (document, act) => {
    const { form, slot: gone } = find(document, act.slot);
    const keepMarks = findEntity(document, gone.name) !== undefined;
    const intents = mapped(document.intents, (intent) =>
      intent.form !== form.name || keepMarks
        ? intent
        : withUtterances(intent, (utterance) => renameMarks(utterance, gone.name, null)),
    );
    const slots = form.slots.filter((own) => own !== gone);
    return {
      document: { ...withForm(document, { ...form, slots }), intents },
      label: `delete slot ${gone.name} of ${form.name}`,
    };
  }),
] as const;
