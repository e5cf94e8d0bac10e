import { renameSlotInRule } from '../../say/condition.js';
import { renameArgument } from '../../say/message.js';
import { findEntity, type BotDocument, type Form, type Localised, type Slot } from '../document.js';
import { mapWordings } from '../localised.js';
import { renameMarks } from '../marking.js';
import { changed, EditError, named, replace, requireName, type Change, type Edited } from './common.js';
import { changeIntent } from './intents.js';

export type FormChange = Change<Omit<Form, 'slots'>>;
export type SlotChange = Change<Omit<Slot, 'name'>>;

const OPTIONAL = ['confirm', 'decline', 'onNo', 'done', 'desk'] as const;

const withForm = (document: BotDocument, name: string, change: (form: Form) => Form): BotDocument => ({
  ...document,
  forms: replace(document.forms, name, change),
});

export function addForm(document: BotDocument, wanted: string, intent?: string): Edited {
  const name = requireName(wanted, 'form', document.forms);
  const added = { ...document, forms: [...document.forms, { name, slots: [] }] };
  return {
    document: intent === undefined ? added : changeIntent(added, intent, { form: name }).document,
    label: `add form ${name}`,
  };
}

export function changeForm(document: BotDocument, name: string, to: FormChange): Edited {
  const before = named(document.forms, name, 'form');
  const next = changed<Form>(before, to, OPTIONAL);
  const form = next.name === name ? next : { ...next, name: requireName(next.name, 'form', document.forms) };
  const intents =
    form.name === name
      ? document.intents
      : document.intents.map((intent) => (intent.form === name ? { ...intent, form: form.name } : intent));
  return {
    document: { ...withForm(document, name, () => form), intents },
    label: form.name === name ? `change form ${name}` : `rename form ${name} to ${form.name}`,
  };
}

export function deleteForm(document: BotDocument, name: string): Edited {
  named(document.forms, name, 'form');
  const freed = document.intents
    .filter((intent) => intent.form === name)
    .reduce((next, intent) => changeIntent(next, intent.name, { form: null }).document, document);
  return {
    document: { ...freed, forms: freed.forms.filter((form) => form.name !== name) },
    label: `delete form ${name}`,
  };
}

export function addSlot(document: BotDocument, formName: string, slot: Slot): Edited {
  const form = named(document.forms, formName, 'form');
  const name = requireName(slot.name, 'slot', form.slots);
  return {
    document: withForm(document, formName, () => ({ ...form, slots: [...form.slots, { ...slot, name }] })),
    label: `add slot ${name} to ${formName}`,
  };
}

export function changeSlot(document: BotDocument, formName: string, name: string, to: SlotChange): Edited {
  const form = named(document.forms, formName, 'form');
  const slot = changed<Slot>(named(form.slots, name, 'slot'), to, ['when', 'several', 'default']);
  return {
    document: withForm(document, formName, () => ({ ...form, slots: replace(form.slots, name, () => slot) })),
    label: `change slot ${name}`,
  };
}

/** Moves a slot in the order in which it is asked. @param by how many places, negative for earlier */
export function moveSlot(document: BotDocument, formName: string, name: string, by: number): Edited {
  const form = named(document.forms, formName, 'form');
  const slot = named(form.slots, name, 'slot');
  const from = form.slots.indexOf(slot);
  const to = from + by;
  if (to < 0 || to >= form.slots.length) throw new EditError(`${name} is at the end of the form already.`);
  const slots = form.slots.toSpliced(from, 1).toSpliced(to, 0, slot);
  return { document: withForm(document, formName, () => ({ ...form, slots })), label: `move slot ${name}` };
}

/** Deletes a slot; marks that name it go with it, unless an entity has the same name. */
export function deleteSlot(document: BotDocument, formName: string, name: string): Edited {
  const form = named(document.forms, formName, 'form');
  named(form.slots, name, 'slot');
  const keepMarks = findEntity(document, name) !== undefined;
  const intents = document.intents.map((intent) =>
    intent.form !== formName || keepMarks
      ? intent
      : { ...intent, utterances: intent.utterances.map((line) => renameMarks(line, name, null)) },
  );
  const slots = form.slots.filter((slot) => slot.name !== name);
  return {
    document: { ...withForm(document, formName, () => ({ ...form, slots })), intents },
    label: `delete slot ${name} of ${formName}`,
  };
}

/** Puts a new name for every argument of a text and every slot of a condition in a form. */
function renameInForm(form: Form, from: string, to: string): Form {
  const inText = (text: Localised): Localised => mapWordings(text, (wording) => renameArgument(wording, from, to));
  const renamed: Form = {
    ...form,
    slots: form.slots.map((slot) => ({
      ...slot,
      name: slot.name === from ? to : slot.name,
      prompts: inText(slot.prompts),
      ...(slot.when === undefined ? {} : { when: renameSlotInRule(slot.when, from, to) }),
    })),
  };
  for (const key of ['confirm', 'decline', 'done'] as const) {
    if (form[key] !== undefined) renamed[key] = inText(form[key]);
  }
  return renamed;
}

export function renameSlot(document: BotDocument, formName: string, from: string, to: string): Edited {
  const form = named(document.forms, formName, 'form');
  named(form.slots, from, 'slot');
  const name = requireName(to, 'slot', form.slots);
  const intents = document.intents.map((intent) =>
    intent.form !== formName
      ? intent
      : {
          ...intent,
          utterances: intent.utterances.map((line) => renameMarks(line, from, name)),
          ...(intent.reply === undefined
            ? {}
            : { reply: mapWordings(intent.reply, (wording) => renameArgument(wording, from, name)) }),
        },
  );
  return {
    document: { ...withForm(document, formName, (item) => renameInForm(item, from, name)), intents },
    label: `rename slot ${from} to ${name}`,
  };
}
