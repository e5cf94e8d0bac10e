import { check, type Fault } from '../shape/fault.js';
import {
  clarify,
  helpOrder,
  cost,
  condition,
  defaultValue,
  entityKind,
  flag,
  level,
  listOf,
  localised,
  newName,
  onNo,
  optionalParts,
  parts,
  text,
  texts,
  tries,
} from '../shape/shapes.js';
import { lazy, number, type Lazy } from '../shape/yup.js';
import { ENGINE_TEXTS, TEXT_NAMES } from '../say/engineTexts.js';
import { MOST } from './limits.js';

const wholeValue = parts({
  value: text(MOST.value).required('is missing: give the value its main form'),
  synonyms: texts(MOST.synonyms, MOST.value, { empty: 'is empty' }),
});
const bareValue = text(MOST.value).required('is empty');

const listValue = lazy((value: unknown) => (typeof value === 'string' ? bareValue : wholeValue)).meta({
  either: [bareValue, wholeValue],
}) as unknown as Lazy<unknown>;

const entity = parts({
  name: newName(),
  kind: entityKind().required('is missing: say list, pattern, free or a built-in kind'),
  misspellings: flag().meta({ description: 'List: values are also found when misspelt.' }),
  values: listOf(listValue, MOST.values),
  pattern: text(MOST.pattern).meta({
    description: 'Pattern: a regular expression for the whole value, without look-around.',
  }),
});

const intent = parts({
  name: newName(),
  description: text(MOST.description).meta({
    description: 'For the designer and the model; customers do not see it.',
  }),
  called: localised().meta({ description: 'How it is named to a customer: change an order.' }),
  offered: flag().meta({
    description: 'Whether it stands in clarifications and help; by default all do but thanks, greetings and the like.',
  }),
  form: text(MOST.name),
  reply: localised(),
  desk: text(MOST.name),
  accept: level().meta({
    description: 'Least confidence at which this intent is acted on; by default that of the gate.',
  }),
  utterances: texts(MOST.utterances, MOST.utterance * 2, {
    empty: 'is empty: write the message or take the line away',
  }).meta({ description: 'With inline marking: two <plant>lavender</plant>. Literal < and & as &lt; and &amp;.' }),
});

const slot = parts({
  name: newName(),
  entity: text(MOST.name).required('is missing: name the entity whose values fill this slot'),
  required: flag(),
  several: flag().meta({
    description: 'Whether it may hold several values; by default a list, free words and countries may.',
  }),
  tries: tries().meta({ description: 'Failed tries in a row at this slot; by default those of noMatch.' }),
  default: defaultValue(),
  when: condition(),
  prompts: localised(),
});

const form = parts({
  name: newName(),
  slots: listOf(slot, MOST.slots),
  confirm: localised(),
  decline: localised(),
  onNo: onNo().meta({
    description: 'What a no to the read-back does: ask what to change (the default), or say the decline and leave.',
  }),
  done: localised(),
  desk: text(MOST.name),
});

const desk = parts({ name: newName(), description: text(MOST.description), handover: localised() });

const gate = optionalParts({
  accept: level().meta({ description: 'Least confidence that is acted on.' }),
  ask: level().meta({ description: 'Least confidence that is asked about.' }),
  acceptForms: level().meta({
    description: 'Least confidence at which a form is opened that is read back; by default the accept level.',
  }),
  lead: level().meta({ description: 'How far the best intent must lead the next.' }),
  clarify: clarify().meta({ description: 'How the bot asks where it is unsure.' }),
  costs: optionalParts({
    wrongAct: cost().meta({ description: 'The bot acts on what the customer did not want.' }),
    wrongForm: cost().meta({
      description: 'The bot opens a form, read back before anything is done, that the customer did not want.',
    }),
    question: cost().meta({ description: 'The bot asks.' }),
    missed: cost().meta({ description: 'A request that the bot could have taken is not taken.' }),
    outsideAct: cost().meta({ description: 'The bot acts on a message that is none of its business.' }),
  }),
});

const noMatch = optionalParts({
  prompts: localised().meta({ description: 'Said at the first failed try, the second, and so on.' }),
  tries: tries(),
  order: helpOrder().meta({ description: 'Where help is sought at the first failed try, the second, and so on.' }),
  silences: tries().meta({ description: 'How often in a row nothing is said before it gives up; by default tries.' }),
  desk: text(MOST.name),
  giveUp: localised(),
});

const engineTexts = optionalParts(
  Object.fromEntries(TEXT_NAMES.map((key) => [key, localised().meta({ description: ENGINE_TEXTS[key].when })])),
).meta({ description: "The bot's own wordings of the sentences that the engine says." });

/** The shape of a bot file. References between its parts are checked by `validateReferences`. */
export const botShape = parts(
  {
    reedGate: number()
      .strict()
      .typeError('must be the number 1')
      .required('is missing: a bot file begins with reedGate: 1')
      .oneOf([1], 'is a version this program does not read; it reads 1')
      .meta({ description: 'Version of the format.' }),
    name: text(MOST.name).required('is missing: give the bot a name'),
    languages: texts(MOST.languages, MOST.name, { empty: 'is empty' }).meta({
      description: 'The first is the main one.',
    }),
    timeZone: text(MOST.name).meta({ description: 'IANA name, such as Europe/London.' }),
    region: text(MOST.name)
      .matches(/^[A-Z]{2}$/, 'must be a country code of two capital letters, such as GB')
      .meta({ description: 'ISO 3166 country: order of day and month, reading of phone numbers.' }),
    greeting: localised(),
    entities: listOf(entity, MOST.entities),
    intents: listOf(intent, MOST.intents),
    forms: listOf(form, MOST.forms),
    desks: listOf(desk, MOST.desks),
    gate,
    noMatch,
    texts: engineTexts,
  },
  'a bot file is one object with reedGate, name, intents and so on',
);

/** All shape faults of a value read from a bot file. */
export function shapeFaults(value: unknown): Fault[] {
  if (value === null || value === undefined) return [{ path: '', message: 'the file is empty' }];
  const checked = check(botShape, value);
  return checked.ok ? [] : checked.faults;
}
