import type { InferType } from '../../shape/yup.js';
import type { BotDocument, Intent } from '../document.js';
import { MOST } from '../limits.js';
import { actKind, type Outcome } from './act.js';
import { changed, marksForForm, named, replace, requireName } from './common.js';
import { change, flag, level, localised, name, parts, text, texts } from '../../shape/shapes.js';

const OPTIONAL = ['description', 'called', 'offered', 'form', 'reply', 'desk', 'accept'] as const;

const intentChange = change({
  name: text(MOST.name),
  description: text(MOST.description).nullable(),
  called: localised().nullable(),
  offered: flag().nullable(),
  form: text(MOST.name).nullable(),
  reply: localised().nullable(),
  desk: text(MOST.name).nullable(),
  accept: level().nullable(),
});

export type IntentChange = InferType<typeof intentChange>;

export function changeIntent(document: BotDocument, wanted: string, to: IntentChange): Outcome {
  const before = named(document.intents, wanted, 'intent');
  const renamed = to.name !== undefined && to.name.trim() !== wanted;
  const own = renamed ? { name: requireName(to.name!, 'intent', document.intents) } : { name: wanted };
  let intent: Intent = changed<Intent>(before, { ...to, ...own }, OPTIONAL);
  if (intent.form !== before.form) {
    intent = { ...intent, utterances: marksForForm(document, before.utterances, before.form, intent.form) };
  }
  return {
    document: { ...document, intents: replace(document.intents, wanted, () => intent) },
    label: renamed ? `rename ${wanted} to ${intent.name}` : `change ${wanted}`,
    ...(renamed ? { renaming: { what: 'intent', from: wanted, to: intent.name } } : {}),
  };
}

export const INTENT_ACTS = [
  actKind('addIntent', parts({ name: name(), description: text(MOST.description) }), (document, act) => {
    const intent = changed<Intent>(
      { name: requireName(act.name, 'intent', document.intents), utterances: [] },
      { description: act.description?.trim() },
      OPTIONAL,
    );
    return { document: { ...document, intents: [...document.intents, intent] }, label: `add ${intent.name}` };
  }),

  actKind('changeIntent', parts({ name: name(), to: intentChange }), (document, act) =>
    changeIntent(document, act.name, act.to),
  ),

  actKind('deleteIntents', parts({ names: texts(MOST.intents, MOST.name).required('is missing') }), (document, act) => {
    for (const one of act.names) named(document.intents, one, 'intent');
    const intents = document.intents.filter((intent) => !act.names.includes(intent.name));
    return { document: { ...document, intents }, label: `delete ${act.names.join(', ')}` };
  }),
] as const;
