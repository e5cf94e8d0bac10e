import type { InferType } from '../../shape/yup.js';
import type { BotDocument, Form } from '../document.js';
import { MOST } from '../limits.js';
import { actKind } from './act.js';
import { changed, mapped, named, replace, requireName } from './common.js';
import { changeIntent } from './intents.js';
import { change, localised, name, onNo, parts, text } from '../../shape/shapes.js';

const OPTIONAL = ['confirm', 'decline', 'onNo', 'done', 'desk'] as const;

const formChange = change({
  name: text(MOST.name),
  confirm: localised().nullable(),
  decline: localised().nullable(),
  onNo: onNo().nullable(),
  done: localised().nullable(),
  desk: text(MOST.name).nullable(),
});

export type FormChange = InferType<typeof formChange>;

const withForm = (document: BotDocument, wanted: string, form: Form): BotDocument => ({
  ...document,
  forms: replace(document.forms, wanted, () => form),
});

export const FORM_ACTS = [
  actKind('addForm', parts({ name: name(), intent: text(MOST.name) }), (document, act) => {
    const own = requireName(act.name, 'form', document.forms);
    const added = { ...document, forms: [...document.forms, { name: own, slots: [] }] };
    return {
      document: act.intent === undefined ? added : changeIntent(added, act.intent, { form: own }).document,
      label: `add form ${own}`,
    };
  }),

  actKind('changeForm', parts({ name: name(), to: formChange }), (document, { name: wanted, to }) => {
    const before = named(document.forms, wanted, 'form');
    const form = changed<Form>(before, { ...to, name: to.name?.trim() }, OPTIONAL);
    if (form.name === wanted) return { document: withForm(document, wanted, form), label: `change form ${wanted}` };
    requireName(form.name, 'form', document.forms);
    const intents = mapped(document.intents, (intent) =>
      intent.form === wanted ? { ...intent, form: form.name } : intent,
    );
    return {
      document: { ...withForm(document, wanted, form), intents },
      label: `rename form ${wanted} to ${form.name}`,
    };
  }),

  actKind('deleteForm', parts({ name: name() }), (document, { name: wanted }) => {
    named(document.forms, wanted, 'form');
    const freed = document.intents
      .filter((intent) => intent.form === wanted)
      .reduce((next, intent) => changeIntent(next, intent.name, { form: null }).document, document);
    return {
      document: { ...freed, forms: freed.forms.filter((form) => form.name !== wanted) },
      label: `delete form ${wanted}`,
    };
  }),
] as const;
